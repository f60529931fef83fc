import {
  listRows,
  listSlicedFiles,
  listSpecimenFacts,
  type SlicedSummary,
  type VersionedRow,
} from '../data';
import { planWarnings } from './plan-warnings';
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
  planned: VersionedRow[];
  files: SlicedSummary[];
  /** By artefact: in what its planned files differ and must not. */
  warnings: Record<string, string>;
}

/** Reads what the bench shows while the machines print. */
export async function runsData(studyId: string): Promise<RunsData> {
  const { db } = app();
  const [
    prints,
    openPrints,
    incidents,
    artefacts,
    materials,
    contenders,
    specimens,
    planned,
    files,
    warnings,
  ] = await Promise.all([
    listRows(db, studyId, 'prints'),
    listRows(db, studyId, 'open_prints'),
    listRows(db, studyId, 'incidents'),
    listRows(db, studyId, 'artefacts'),
    listRows(db, studyId, 'materials'),
    listRows(db, studyId, 'contenders'),
    listSpecimenFacts(db, studyId),
    listRows(db, studyId, 'planned'),
    listSlicedFiles(db, studyId),
    planWarnings(studyId),
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
    planned,
    files,
    warnings,
  };
}
