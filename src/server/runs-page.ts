import { USUAL_ORDER } from '../core/plan';
import type { OpenPrint, Print, Row } from '../core/study';
import {
  findStudy,
  linkState,
  listRows,
  listSlicedFiles,
  listSpecimenFacts,
  type LinkState,
  type SlicedSummary,
  type VersionedRow,
} from '../data';
import { app } from './app';
import { materialName, orderedPrints, type OrderedPrint } from './plan-page';
import { planWarnings } from './plan-warnings';

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
  /** What happened to the prints that are running. */
  events: VersionedRow[];
  /** The plan's order; empty without a plan. */
  order: OrderedPrint[];
  link: LinkState;
}

/** Reads what the bench shows while the machines print. */
export async function runsData(studyId: string): Promise<RunsData> {
  const { db } = app();
  const rows = (table: 'prints' | 'open_prints' | 'incidents' | 'planned' | 'print_events') =>
    listRows(db, studyId, table);
  const [record, prints, openPrints, incidents, planned, events, link, files, warnings] =
    await Promise.all([
      findStudy(db, studyId),
      rows('prints'),
      rows('open_prints'),
      rows('incidents'),
      rows('planned'),
      rows('print_events'),
      linkState(db, studyId),
      listSlicedFiles(db, studyId),
      planWarnings(studyId),
    ]);
  const [artefacts, materials, contenders, specimens] = await Promise.all([
    listRows(db, studyId, 'artefacts'),
    listRows(db, studyId, 'materials'),
    listRows(db, studyId, 'contenders'),
    listSpecimenFacts(db, studyId),
  ]);
  const running = new Set(openPrints.map((row) => row.print_id));
  return {
    ...{ prints, openPrints, incidents, planned, files, warnings, link },
    events: events.filter((row) => running.has(row.print_id ?? null)),
    artefacts: artefacts.map((row) => ({ id: String(row.artefact_id), name: String(row.name) })),
    materials: materials.map((row) => ({ id: String(row.material_id), name: materialName(row) })),
    machineOf: Object.fromEntries(
      contenders.map((row) => [String(row.contender_id), String(row.machine_id)]),
    ),
    codes: specimens.flatMap((row) => row.code ?? []),
    order: orderedPrints(
      planned as unknown as Row<'planned'>[],
      prints as unknown as Print[],
      openPrints as unknown as OpenPrint[],
      record.plan ?? USUAL_ORDER,
    ),
  };
}
