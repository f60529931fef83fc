import { groupBy, type DRAWN_SIDES, type Row, type Tables } from '../../model/study';

/** Where a finding lies on a side of its artefact, mm, v upwards. */
export interface PlacedFinding {
  contender_id: string;
  defect: Row<'findings'>['defect'];
  grade: number;
  box: { x: number; y: number; w: number; h: number };
  /** Whether somebody has said where; else it is the whole zone. */
  isBoxed: boolean;
}

/** The findings on one side of an artefact. */
export interface SideFindings {
  artefact_id: string;
  side: (typeof DRAWN_SIDES)[number];
  findings: PlacedFinding[];
}

/**
 * Findings of all specimens laid on the sides of their artefacts, the side with most first. One whose
 * box was drawn on its zone's side lies there, any other on the whole zone; grade 0 is nowhere.
 */
export function findingsOnSides(
  tables: Pick<Tables, 'findings' | 'specimens' | 'prints' | 'zone_places'>,
): SideFindings[] {
  const printOf = new Map(tables.prints.map((row) => [row.print_id, row]));
  const specimenOf = new Map(tables.specimens.map((row) => [row.specimen_id, row]));
  const placeOf = new Map(
    tables.zone_places.map((row) => [`${row.artefact_id}/${row.zone_id}`, row]),
  );
  const placed = tables.findings.flatMap((row) => {
    const print = printOf.get(specimenOf.get(row.specimen_id)?.print_id ?? '');
    const place = print && placeOf.get(`${print.artefact_id}/${row.zone_id}`);
    if (!print || !place || row.grade === 0) return [];
    const { contender_id, artefact_id } = print;
    const drawn = row.view === place.side ? boxOf(row) : null;
    const finding: PlacedFinding = {
      contender_id,
      defect: row.defect,
      grade: row.grade,
      box: drawn ?? zoneBox(place),
      isBoxed: drawn !== null,
    };
    return [{ artefact_id, side: place.side, finding }];
  });
  return [...groupBy(placed, ({ artefact_id, side }) => `${artefact_id}/${side}`).values()]
    .flatMap((own): SideFindings[] => {
      const [first] = own;
      if (!first) return [];
      const { artefact_id, side } = first;
      return [{ artefact_id, side, findings: own.map(({ finding }) => finding) }];
    })
    .sort((a, b) => b.findings.length - a.findings.length);
}

function boxOf({ x_mm: x, y_mm: y, w_mm: w, h_mm: h }: Row<'findings'>) {
  return x === null || y === null || w === null || h === null ? null : { x, y, w, h };
}

/** The rectangle of a zone on its side, whichever of its corners were given first. */
export const zoneBox = ({
  u1_mm,
  v1_mm,
  u2_mm,
  v2_mm,
}: Pick<Row<'zone_places'>, 'u1_mm' | 'v1_mm' | 'u2_mm' | 'v2_mm'>) => ({
  x: Math.min(u1_mm, u2_mm),
  y: Math.min(v1_mm, v2_mm),
  w: Math.abs(u2_mm - u1_mm),
  h: Math.abs(v2_mm - v1_mm),
});
