import { USUAL_ORDER } from '../../core/plan';
import { groupBy } from '../../core/study';
import {
  findStudy,
  latestIncidents,
  latestPrints,
  linkState,
  listTables,
  listSlicedFiles,
  printedPlaces,
  stickerCodes,
  tallyPrints,
  type CellTally,
  type LinkState,
  type SlicedSummary,
  type Stored,
} from '../../data';
import { app } from '../app';
import { materialName, orderedPrints, type OrderedPrint } from '../plan/page';
import { planWarnings } from '../plan/warnings';

/** So many prints are shown one by one, and at most and least so many of a place of the matrix. */
const SHOWN_PRINTS = 720;
const MOST_OF_A_CELL = 12;
const LEAST_OF_A_CELL = 3;
const SHOWN_INCIDENTS = 300;

/** What the bench shows while the machines print. */
export interface RunsData {
  /** The latest prints of each contender and artefact. */
  prints: Stored<'prints'>[];
  /** How all of them ended. */
  tallies: CellTally[];
  openPrints: Stored<'open_prints'>[];
  incidents: Stored<'incidents'>[];
  photos: Stored<'incident_photos'>[];
  artefacts: { id: string; name: string }[];
  materials: { id: string; name: string }[];
  /** Where the copies of an artefact lie that its mesh places, mm from the middle of the plate. */
  copyPlaces: Record<string, [number, number][]>;
  /** Machine of each contender. */
  machineOf: Record<string, string>;
  codes: string[];
  planned: Stored<'planned'>[];
  files: SlicedSummary[];
  /** By artefact: in what its planned files differ and must not. */
  warnings: Record<string, string>;
  /** What happened to the prints that are running. */
  events: Stored<'print_events'>[];
  /** The plan's order; empty without a plan. */
  order: OrderedPrint[];
  link: LinkState;
}

/** Reads what the bench shows while the machines print. */
export async function runsData(studyId: string): Promise<RunsData> {
  const { db } = app();
  const tables = await listTables(db, studyId, [
    'artefacts',
    'contenders',
    'open_prints',
    'planned',
    'print_events',
    'materials',
    'incident_photos',
    'copy_places',
  ]);
  const { artefacts, contenders, open_prints: openPrints, planned } = tables;
  const cells = Math.max(1, artefacts.length * contenders.length);
  const perCell = Math.max(
    LEAST_OF_A_CELL,
    Math.min(MOST_OF_A_CELL, Math.floor(SHOWN_PRINTS / cells)),
  );
  const [record, prints, incidents, link, files, warnings, codes, tallies, places] =
    await Promise.all([
      findStudy(db, studyId),
      latestPrints(db, studyId, perCell),
      latestIncidents(db, studyId, SHOWN_INCIDENTS),
      linkState(db, studyId),
      listSlicedFiles(db, studyId),
      planWarnings(studyId),
      stickerCodes(db, studyId),
      tallyPrints(db, studyId),
      printedPlaces(db, studyId),
    ]);
  const running = new Set(openPrints.map((row) => row.print_id));
  const copies = groupBy(tables.copy_places, (row) => row.artefact_id);
  return {
    ...{ prints, openPrints, incidents, planned, files, warnings, link, codes, tallies },
    photos: tables.incident_photos,
    events: tables.print_events.filter((row) => running.has(row.print_id)),
    artefacts: artefacts.map((row) => ({ id: row.artefact_id, name: row.name })),
    materials: tables.materials.map((row) => ({ id: row.material_id, name: materialName(row) })),
    machineOf: Object.fromEntries(contenders.map((row) => [row.contender_id, row.machine_id])),
    copyPlaces: Object.fromEntries(
      [...copies].map(([id, own]) => [
        id,
        [...own]
          .sort((a, b) => a.copy - b.copy)
          .map((row): [number, number] => [row.x_mm, row.y_mm]),
      ]),
    ),
    order: orderedPrints(planned, places, openPrints, record.plan ?? USUAL_ORDER),
  };
}

/** What the bench shows, for a page that asks again. @throws NotFoundError for an unknown study */
export async function runsOfStudy(studyId: string): Promise<RunsData> {
  await findStudy(app().db, studyId);
  return runsData(studyId);
}
