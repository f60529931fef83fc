import { USUAL_ORDER } from '../core/plan';
import { groupBy, type OpenPrint, type Row } from '../core/study';
import {
  findStudy,
  latestIncidents,
  latestPrints,
  linkState,
  listRows,
  listSlicedFiles,
  printedPlaces,
  stickerCodes,
  tallyPrints,
  type CellTally,
  type LinkState,
  type SlicedSummary,
  type VersionedRow,
} from '../data';
import { app } from './app';
import { materialName, orderedPrints, type OrderedPrint } from './plan-page';
import { planWarnings } from './plan-warnings';

/** What the bench shows while the machines print. */
/** So many prints are shown one by one, and at most and least so many of a place of the matrix. */
const SHOWN_PRINTS = 720;
const MOST_OF_A_CELL = 12;
const LEAST_OF_A_CELL = 3;
const SHOWN_INCIDENTS = 300;

export interface RunsData {
  /** The latest prints of each contender and artefact. */
  prints: VersionedRow[];
  /** How all of them ended. */
  tallies: CellTally[];
  openPrints: VersionedRow[];
  incidents: VersionedRow[];
  photos: VersionedRow[];
  artefacts: { id: string; name: string }[];
  materials: { id: string; name: string }[];
  /** Where the copies of an artefact lie that its mesh places, mm from the middle of the plate. */
  copyPlaces: Record<string, [number, number][]>;
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
  const rows = (table: 'open_prints' | 'planned' | 'print_events') => listRows(db, studyId, table);
  const [artefacts, contenders] = await Promise.all([
    listRows(db, studyId, 'artefacts'),
    listRows(db, studyId, 'contenders'),
  ]);
  const cells = Math.max(1, artefacts.length * contenders.length);
  const perCell = Math.max(
    LEAST_OF_A_CELL,
    Math.min(MOST_OF_A_CELL, Math.floor(SHOWN_PRINTS / cells)),
  );
  const [record, prints, openPrints, incidents, planned, events, link, files, warnings] =
    await Promise.all([
      findStudy(db, studyId),
      latestPrints(db, studyId, perCell),
      rows('open_prints'),
      latestIncidents(db, studyId, SHOWN_INCIDENTS),
      rows('planned'),
      rows('print_events'),
      linkState(db, studyId),
      listSlicedFiles(db, studyId),
      planWarnings(studyId),
    ]);
  const [materials, photos, copies, codes, tallies, places] = await Promise.all([
    listRows(db, studyId, 'materials'),
    listRows(db, studyId, 'incident_photos'),
    listRows(db, studyId, 'copy_places'),
    stickerCodes(db, studyId),
    tallyPrints(db, studyId),
    printedPlaces(db, studyId),
  ]);
  const running = new Set(openPrints.map((row) => row.print_id));
  return {
    ...{ prints, openPrints, incidents, planned, files, warnings, link, photos },
    events: events.filter((row) => running.has(row.print_id ?? null)),
    artefacts: artefacts.map((row) => ({ id: String(row.artefact_id), name: String(row.name) })),
    materials: materials.map((row) => ({ id: String(row.material_id), name: materialName(row) })),
    machineOf: Object.fromEntries(
      contenders.map((row) => [String(row.contender_id), String(row.machine_id)]),
    ),
    copyPlaces: Object.fromEntries(
      [...groupBy(copies, (row) => String(row.artefact_id))].map(([id, own]) => [
        id,
        [...own]
          .sort((a, b) => Number(a.copy) - Number(b.copy))
          .map((row) => [Number(row.x_mm), Number(row.y_mm)] as [number, number]),
      ]),
    ),
    codes,
    tallies,
    order: orderedPrints(
      planned as unknown as Row<'planned'>[],
      places,
      openPrints as unknown as OpenPrint[],
      record.plan ?? USUAL_ORDER,
    ),
  };
}
