import { v5 as nameBased } from 'uuid';
import { ledgerOf } from '../../core/ledger';
import {
  follow,
  whyDropped,
  type MachineMessage,
  type MeterMessage,
  type Step,
} from '../../core/link';
import type { AnyRow, OpenPrint, Row } from '../../core/study';
import { USUAL_ORDER } from '../../core/plan';
import {
  endPrintWithin,
  estimateOfFile,
  eventsOfPrint,
  findStudy,
  inChange,
  insertRow,
  keepLinkMachine,
  listRows,
  lockLinkMachine,
  openPrintOfMachine,
  printedPlaces,
  type Database,
  type LinkMachine,
  type Transaction,
  type VersionedRow,
} from '../../data';
import { orderedPrints } from '../plan-page';

const BY_LINK = 'bench link';
/** Names of ids that follow from what a message says, so that it counts once. */
const NAMES = '6f0c2d1e-7a53-4b8e-9d5c-2f8b1a4e6c70';
const idOf = (...parts: readonly string[]): string => nameBased(parts.join(' '), NAMES);

/** What became of a message. */
export type Applied = 'followed' | 'late' | 'repeated' | 'no plan for it';

/** Follows a machine's message in a study: one transaction, so that a crash leaves nothing half. */
export function applyMachine(
  db: Database,
  studyId: string,
  machineId: string,
  message: MachineMessage,
): Promise<Applied> {
  return inChange<Applied>(db, async (transaction) => {
    const last = await lockLinkMachine(db, studyId, machineId, transaction);
    const dropped = whyDropped(last, message);
    if (dropped) return dropped;
    const open = await openPrintOfMachine(db, studyId, machineId, transaction);
    const events = open ? await eventsOfPrint(db, studyId, String(open.print_id), transaction) : [];
    const isStalled =
      open !== null && ledgerOf(String(open.started_at), events, message.at).state === 'stalled';
    const step = follow(last ? { ...last, isStalled } : null, message, open !== null);
    const heard: LinkMachine = {
      ...(last ?? { energy_start_wh: null, energy_wh: null }),
      ...step.heard,
      machine_id: machineId,
      print_id: open ? String(open.print_id) : null,
      is_up: true,
    };
    const bench: Bench = { db, studyId, machineId, message, transaction };
    let print: VersionedRow | null = open;
    let result: Applied = 'followed';
    for (const one of step.steps) {
      if (one.kind === 'start') {
        print = await startPrint(bench, one.at);
        if (!print) {
          result = 'no plan for it';
          heard.printed_job = null;
          break;
        }
        heard.print_id = String(print.print_id);
        heard.energy_start_wh = heard.energy_wh;
      } else if (print && one.kind === 'event') await noteEvent(bench, print, one.event, one.at);
      else if (print && one.kind === 'end') {
        await endByLink(bench, print, one, heard);
        heard.print_id = null;
      }
    }
    await keepLinkMachine(db, studyId, heard, transaction);
    return result;
  });
}

/** Keeps what a power meter says of a machine. */
export function applyMeter(
  db: Database,
  studyId: string,
  machineId: string,
  message: MeterMessage,
): Promise<Applied> {
  return inChange<Applied>(db, async (transaction) => {
    const last = await lockLinkMachine(db, studyId, machineId, transaction);
    if (!last) return 'followed';
    // A meter that was reset begins at 0 again: the print's share before it is not known.
    const isReset = last.energy_wh !== null && message.energy_wh < last.energy_wh;
    const heard: LinkMachine = {
      ...last,
      energy_wh: message.energy_wh,
      energy_start_wh: isReset
        ? null
        : (last.energy_start_wh ?? (last.print_id ? message.energy_wh : null)),
    };
    await keepLinkMachine(db, studyId, heard, transaction);
    return 'followed';
  });
}

interface Bench {
  db: Database;
  studyId: string;
  machineId: string;
  message: MachineMessage;
  transaction: Transaction;
}

/** Opens the print that a machine has begun: the one that its file names, else the next planned. */
async function startPrint(bench: Bench, at: string): Promise<VersionedRow | null> {
  const { db, studyId, machineId, message, transaction } = bench;
  const print_id = idOf(studyId, machineId, message.session, message.job ?? at);
  // Everything is read within the message's transaction: a second connection could wait for it.
  const rows = (table: 'contenders' | 'planned' | 'open_prints') =>
    listRows(db, studyId, table, transaction);
  const own = new Set(
    (await rows('contenders'))
      .filter((row) => row.machine_id === machineId)
      .map((row) => String(row.contender_id)),
  );
  const planned = (await rows('planned')) as unknown as Row<'planned'>[];
  const { plan } = await findStudy(db, studyId, transaction);
  const order = orderedPrints(
    planned,
    await printedPlaces(db, studyId, transaction),
    (await rows('open_prints')) as unknown as OpenPrint[],
    plan ?? USUAL_ORDER,
  ).filter((one) => one.state === 'owed' && own.has(one.contender_id));
  const fileOf = (one: { contender_id: string; artefact_id: string }) =>
    planned.find(
      (row) => row.contender_id === one.contender_id && row.artefact_id === one.artefact_id,
    )?.toolpath ?? null;
  const named = order.find((one) => {
    const path = fileOf(one);
    return message.file !== undefined && path !== null && path.endsWith(`/${message.file}`);
  });
  const chosen = named ?? order[0];
  if (!chosen) return null;
  const row = {
    ...unknownPrint(),
    print_id,
    contender_id: chosen.contender_id,
    artefact_id: chosen.artefact_id,
    material_id: chosen.material_id,
    repeat: chosen.repeat,
    started_at: at,
    toolpath: fileOf(chosen),
    estimate_s: await estimateOfFile(db, studyId, fileOf(chosen), transaction),
  };
  const added = await insertRow(db, studyId, 'open_prints', row, BY_LINK, transaction);
  await noteEvent(bench, added, 'started', at);
  return added;
}

const UNKNOWN = [
  ...['order', 'started_at', 'ended_at', 'estimate_s', 'heat_s', 'print_s', 'paused_s'],
  ...['filament_g', 'waste_g', 'filament_m', 'energy_wh', 'progress_pct', 'firmware', 'plate'],
  ...['nozzle_mm', 'ambient_c', 'humidity_pct', 'noise_db', 'noise_distance_m', 'operator'],
  'toolpath',
];

const unknownPrint = (): AnyRow => Object.fromEntries(UNKNOWN.map((name) => [name, null]));

async function noteEvent(
  { db, studyId, transaction }: Bench,
  print: VersionedRow,
  kind: string,
  at: string,
): Promise<void> {
  const print_id = String(print.print_id);
  const row = {
    event_id: idOf(studyId, print_id, kind, at),
    ...{ print_id, at, kind, source: 'link', operator: null },
  };
  await insertRow(db, studyId, 'print_events', row, BY_LINK, transaction);
}

/** Ends a print as its machine says; the ledger of its events gives its times. */
async function endByLink(
  bench: Bench,
  print: VersionedRow,
  step: Extract<Step, { kind: 'end' }>,
  heard: LinkMachine,
): Promise<void> {
  const { db, studyId, machineId, transaction } = bench;
  const print_id = String(print.print_id);
  await noteEvent(bench, print, 'ended', step.at);
  const events = await eventsOfPrint(db, studyId, print_id, transaction);
  const ledger = ledgerOf(String(print.started_at), events, step.at);
  const { row_version: _, ...known } = print;
  const energy =
    heard.energy_wh !== null && heard.energy_start_wh !== null
      ? heard.energy_wh - heard.energy_start_wh
      : null;
  const ended: AnyRow = {
    ...known,
    ended_at: step.at,
    outcome: step.outcome,
    progress_pct: Math.round(100 * step.progress),
    heat_s: known.heat_s ?? (ledger.isHeatKnown ? ledger.heat_s : null),
    print_s: known.print_s ?? Math.max(1, ledger.print_s),
    paused_s: known.paused_s ?? ledger.paused_s + ledger.stalled_s,
    energy_wh: known.energy_wh ?? energy,
  };
  await endPrintWithin(db, studyId, ended, [], BY_LINK, transaction);
  const incident = (mode: string, cause: string, at: string, downtime_s: number | null) => ({
    incident_id: idOf(studyId, print_id, mode, at),
    ...{ machine_id: machineId, print_id, at, mode, cause, downtime_s },
    progress_pct: mode === step.mode ? Math.round(100 * step.progress) : null,
    ...{ action: null, hands_s: null, note: 'from the bench link, to be confirmed' },
  });
  const stood = events.find((event) => event.kind === 'stalled');
  if (stood && ledger.stalled_s > 0) {
    const row = incident('stalled', 'unknown', stood.at, Math.round(ledger.stalled_s));
    await insertRow(db, studyId, 'incidents', row, BY_LINK, transaction);
  }
  if (step.mode !== null) {
    const row = incident(step.mode, 'unknown', step.at, null);
    await insertRow(db, studyId, 'incidents', row, BY_LINK, transaction);
  }
}
