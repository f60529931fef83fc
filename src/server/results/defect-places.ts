import { groupBy, type DRAWN_SIDES } from '../../core/study';
import { listFiles, listTables } from '../../data';
import { app } from '../app';
import { sheetOfFile } from '../artefacts';

type Side = (typeof DRAWN_SIDES)[number];

/** Where a finding lies on a side of its artefact, mm, v upwards. */
export interface PlacedFinding {
  contender_id: string;
  defect: string;
  grade: number;
  box: { x: number; y: number; w: number; h: number };
  /** Whether somebody has said where; else it is the whole zone. */
  isBoxed: boolean;
}

/** A side of an artefact with all findings on it. */
export interface DefectSide {
  artefact_id: string;
  artefact: string;
  side: Side;
  drawing: { visible: string; box: { left: number; top: number; width: number; height: number } };
  findings: PlacedFinding[];
}

/** Findings of all specimens laid on the drawings of their artefacts, the side with most first. */
export async function defectSides(studyId: string): Promise<DefectSide[]> {
  const { db } = app();
  const [tables, files] = await Promise.all([
    listTables(db, studyId, ['artefacts', 'zone_places', 'findings', 'specimens', 'prints']),
    listFiles(db, studyId),
  ]);
  const printOf = new Map(tables.prints.map((row) => [row.print_id, row]));
  const specimenOf = new Map(tables.specimens.map((row) => [row.specimen_id, row]));
  const placeOf = new Map(
    tables.zone_places.map((row) => [`${row.artefact_id}/${row.zone_id}`, row]),
  );
  const placed = tables.findings.flatMap((row) => {
    const print = printOf.get(specimenOf.get(row.specimen_id)?.print_id ?? '');
    const place = print && placeOf.get(`${print.artefact_id}/${row.zone_id}`);
    if (!print || !place || row.grade === 0) return [];
    const { x_mm, y_mm, w_mm, h_mm } = row;
    const isBoxed =
      row.view === place.side && x_mm !== null && y_mm !== null && w_mm !== null && h_mm !== null;
    const box = isBoxed
      ? { x: x_mm, y: y_mm, w: w_mm, h: h_mm }
      : {
          ...{ x: Math.min(place.u1_mm, place.u2_mm), y: Math.min(place.v1_mm, place.v2_mm) },
          ...{ w: Math.abs(place.u2_mm - place.u1_mm), h: Math.abs(place.v2_mm - place.v1_mm) },
        };
    const { contender_id, artefact_id } = print;
    const finding: PlacedFinding = {
      ...{ contender_id, defect: row.defect, grade: row.grade, box, isBoxed },
    };
    return [{ key: `${artefact_id}/${place.side}`, artefact_id, side: place.side, finding }];
  });
  const sides: DefectSide[] = [];
  for (const own of groupBy(placed, ({ key }) => key).values()) {
    const [first] = own;
    const artefact = tables.artefacts.find((row) => row.artefact_id === first?.artefact_id);
    const file = files.find(({ path }) => path === artefact?.mesh);
    const sheet = file && (await sheetOfFile(file));
    if (!first || !artefact || !sheet) continue;
    const { visible, box } = sheet.sides[first.side];
    sides.push({
      ...{ artefact_id: first.artefact_id, artefact: artefact.name, side: first.side },
      ...{ drawing: { visible, box }, findings: own.map(({ finding }) => finding) },
    });
  }
  return sides.sort((a, b) => b.findings.length - a.findings.length);
}
