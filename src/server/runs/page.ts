import { USUAL_ORDER } from '../../core/answers/plan';
import { groupBy, instant } from '../../core/model/study';
import {
  findStudy,
  incompletePrints,
  latestIncidents,
  latestPrints,
  listTables,
  listSlicedFiles,
  printedPlaces,
  stickerCodes,
  tallyPrints,
  type CellTally,
  type IncompletePrint,
  type SlicedSummary,
  type Stored,
} from '../../data';
import type { App } from '../app';
import { linkNow, type StudyLink } from './link';
import { materialName, orderedPrints, type OrderedPrint } from '../plan/page';
import { planWarnings } from '../plan/warnings';

/** So many prints are shown one by one, and at most and least so many of a place of the matrix. */
const SHOWN_PRINTS = 720;
const MOST_OF_A_CELL = 12;
const LEAST_OF_A_CELL = 3;
const SHOWN_INCIDENTS = 300;

/** What the record says of a machine, for the form of a print's start. */
export interface MachineFacts {
  firmware: string | null;
  /** When the firmware was changed last; null where no change is known. */
  firmware_at: string | null;
  nozzle_mm: number | null;
}

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
  /** What the record says of each machine. */
  machines: Record<string, MachineFacts>;
  /** Codes that are on stickers already, the latest first: the server draws the next ones. */
  codes: string[];
  /** Prints of which something is missing that only a person knows. */
  incomplete: IncompletePrint[];
  planned: Stored<'planned'>[];
  files: SlicedSummary[];
  /** By artefact: in what its planned files differ and must not. */
  warnings: Record<string, string>;
  /** What happened to the prints that are running. */
  events: Stored<'print_events'>[];
  /** The plan's order; empty without a plan. */
  order: OrderedPrint[];
  link: StudyLink;
}

/** Reads what the bench shows while the machines print. */
export async function runsData(app: App, studyId: string): Promise<RunsData> {
  const { db } = app;
  const tables = await listTables(db, studyId, [
    'artefacts',
    'contenders',
    'open_prints',
    'planned',
    'print_events',
    'materials',
    'incident_photos',
    'copy_places',
    'machines',
    'machine_changes',
  ]);
  const { artefacts, contenders, open_prints: openPrints, planned } = tables;
  const cells = Math.max(1, artefacts.length * contenders.length);
  const perCell = Math.max(
    LEAST_OF_A_CELL,
    Math.min(MOST_OF_A_CELL, Math.floor(SHOWN_PRINTS / cells)),
  );
  const [record, prints, incidents, link, files, warnings, codes, tallies, places, incomplete] =
    await Promise.all([
      findStudy(db, studyId),
      latestPrints(db, studyId, perCell),
      latestIncidents(db, studyId, SHOWN_INCIDENTS),
      linkNow(app, studyId),
      listSlicedFiles(db, studyId),
      planWarnings(app, studyId),
      stickerCodes(db, studyId),
      tallyPrints(db, studyId),
      printedPlaces(db, studyId),
      incompletePrints(db, studyId),
    ]);
  const running = new Set(openPrints.map((row) => row.print_id));
  const copies = groupBy(tables.copy_places, (row) => row.artefact_id);
  return {
    prints,
    openPrints,
    incidents,
    planned,
    files,
    warnings,
    link,
    codes,
    tallies,
    incomplete,
    photos: tables.incident_photos,
    events: tables.print_events.filter((row) => running.has(row.print_id)),
    artefacts: artefacts.map((row) => ({ id: row.artefact_id, name: row.name })),
    materials: tables.materials.map((row) => ({ id: row.material_id, name: materialName(row) })),
    machineOf: Object.fromEntries(contenders.map((row) => [row.contender_id, row.machine_id])),
    machines: machineFacts(tables.machines, tables.machine_changes),
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

function machineFacts(
  machines: readonly Stored<'machines'>[],
  changes: readonly Stored<'machine_changes'>[],
): Record<string, MachineFacts> {
  return Object.fromEntries(
    machines.map(({ machine_id, firmware, nozzle_mm }) => {
      const times = changes
        .filter((row) => row.machine_id === machine_id && row.kind === 'firmware')
        .map((row) => row.at)
        .sort((a, b) => instant(a) - instant(b));
      return [machine_id, { firmware, nozzle_mm, firmware_at: times.at(-1) ?? null }];
    }),
  );
}

/** What the bench shows, for a page that asks again. @throws NotFoundError for an unknown study */
export async function runsOfStudy(app: App, studyId: string): Promise<RunsData> {
  await findStudy(app.db, studyId);
  return runsData(app, studyId);
}
