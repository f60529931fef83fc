import { listRows, listSpecimenFacts, type VersionedRow } from '../data';
import { app } from './app';

/** What the bench shows while the machines print. */
export interface RunsData {
  prints: VersionedRow[];
  openPrints: VersionedRow[];
  incidents: VersionedRow[];
  artefacts: { id: string; name: string }[];
  materials: { id: string; name: string }[];
  /** Machine of each contender. */
  machineOf: Record<string, string>;
  codes: string[];
}

/** Reads what the bench shows while the machines print. */
export async function runsData(studyId: string): Promise<RunsData> {
  const { db } = app();
  const [prints, openPrints, incidents, artefacts, materials, contenders, specimens] =
    await Promise.all([
      listRows(db, studyId, 'prints'),
      listRows(db, studyId, 'open_prints'),
      listRows(db, studyId, 'incidents'),
      listRows(db, studyId, 'artefacts'),
      listRows(db, studyId, 'materials'),
      listRows(db, studyId, 'contenders'),
      listSpecimenFacts(db, studyId),
    ]);
  return {
    prints,
    openPrints,
    incidents,
    artefacts: artefacts.map((row) => ({ id: String(row.artefact_id), name: String(row.name) })),
    materials: materials.map((row) => ({
      id: String(row.material_id),
      name: [row.maker, row.type, row.colour, row.lot].filter(Boolean).join(' '),
    })),
    machineOf: Object.fromEntries(
      contenders.map((row) => [String(row.contender_id), String(row.machine_id)]),
    ),
    codes: specimens.flatMap((row) => row.code ?? []),
  };
}
