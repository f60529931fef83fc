import { v5 as nameBased } from 'uuid';
import { ledgerOf } from '../../core/model/ledger';
import {
  follow,
  whyDropped,
  type Dropped,
  type MachineMessage,
  type MeterMessage,
  type Step,
} from '../../core/model/link';
import { USUAL_ORDER } from '../../core/answers/plan';
import { fullRow, type IncidentMode, type PrintEventKind, type Row } from '../../core/model/study';
import {
  actingAs,
  endPrint,
  estimateOfFile,
  eventsOfPrint,
  filamentOfFile,
  findStudy,
  insertRow,
  lastPrintOf,
  listRows,
  listRowsBy,
  lockLinkMachine,
  openPrintOfMachine,
  printedPlaces,
  setLinkMachine,
  writeStudy,
  type Database,
  type LinkMachine,
  type Stored,
  type Write,
} from '../../data';
import { orderedPrints } from '../plan/page';

const BY_LINK = 'bench link';
/** Names of ids that follow from what a message says, so that it counts once. */
const NAMES = '6f0c2d1e-7a53-4b8e-9d5c-2f8b1a4e6c70';
const idOf = (...parts: readonly string[]): string => nameBased(parts.join(' '), NAMES);

/** Does what a machine said as a write of its own, in its name. */
const byMachine = (
  machineId: string,
  db: Database,
  studyId: string,
  work: (write: Write) => Promise<Applied>,
): Promise<Applied> =>
  actingAs(`machine:${machineId}`, () => writeStudy(db, studyId, BY_LINK, work));

/** What became of a message. */
export type Applied = 'followed' | Dropped | 'no plan for it';

/** Follows a machine's message in a study: one transaction, so that a crash leaves nothing half. */
export function applyMachine(
  db: Database,
  studyId: string,
  machineId: string,
  message: MachineMessage,
): Promise<Applied> {
  return byMachine(machineId, db, studyId, async (write) => {
    const last = await lockLinkMachine(write, machineId);
    const dropped = whyDropped(last, message, Date.now());
    if (dropped) return dropped;
    const open = await openPrintOfMachine(write.db, studyId, machineId);
    const events = open ? await eventsOfPrint(write.db, studyId, open.print_id) : [];
    const isStalled =
      open?.started_at != null && ledgerOf(open.started_at, events, message.at).state === 'stalled';
    const step = follow(last ? { ...last, isStalled } : null, message, open !== null);
    const heard: LinkMachine = {
      ...(last ?? { energy_start_wh: null, energy_wh: null }),
      ...step.heard,
      machine_id: machineId,
      print_id: open?.print_id ?? null,
      is_up: true,
    };
    const bench: Bench = { write, machineId, message };
    let print: Stored<'open_prints'> | null = open;
    let result: Applied = 'followed';
    for (const one of step.steps) {
      if (one.kind === 'start') {
        print = await startPrint(bench, one.at);
        if (!print) {
          result = 'no plan for it';
          heard.printed_job = null;
          break;
        }
        heard.print_id = print.print_id;
        heard.energy_start_wh = heard.energy_wh;
      } else if (print && one.kind === 'event')
        await noteEvent(write, print.print_id, one.event, one.at);
      else if (print && one.kind === 'end') {
        await endByLink(bench, print, one, heard);
        heard.print_id = null;
      }
    }
    await setLinkMachine(write, heard);
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
  return byMachine(machineId, db, studyId, async (write) => {
    const last = await lockLinkMachine(write, machineId);
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
    await setLinkMachine(write, heard);
    return 'followed';
  });
}

/** What a message is followed with: everything is read and written within the message's write. */
interface Bench {
  write: Write;
  machineId: string;
  message: MachineMessage;
}

/** Opens the print that a machine has begun: the one that its file names, else the next planned. */
async function startPrint(bench: Bench, at: string): Promise<Stored<'open_prints'> | null> {
  const { write, machineId, message } = bench;
  const { db, studyId } = write;
  const print_id = idOf(studyId, machineId, message.session, message.job ?? at);
  const contenders = await listRowsBy(db, studyId, 'contenders', 'machine_id', machineId);
  const own = new Set(contenders.map((row) => row.contender_id));
  const planned = await listRows(db, studyId, 'planned');
  const { plan } = await findStudy(db, studyId);
  const order = orderedPrints(
    planned,
    await printedPlaces(db, studyId),
    await listRows(db, studyId, 'open_prints'),
    plan ?? USUAL_ORDER,
  ).filter((one) => one.state === 'due' && own.has(one.contender_id));
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
  const { contender_id, artefact_id, material_id, repeat } = chosen;
  const toolpath = fileOf(chosen);
  const added = await insertRow(
    write,
    'open_prints',
    fullRow('open_prints', {
      print_id,
      contender_id,
      artefact_id,
      material_id,
      repeat,
      started_at: at,
      toolpath,
      ...(await lastSetUp(write, own)),
      estimate_s: await estimateOfFile(db, studyId, toolpath),
    }),
  );
  await noteEvent(write, print_id, 'started', at);
  return added;
}

/** What was on the machine at its own last print: its plate, nozzle and firmware are taken to be there still. */
async function lastSetUp(
  write: Write,
  contenders: ReadonlySet<string>,
): Promise<Pick<Row<'open_prints'>, 'plate' | 'nozzle_mm' | 'firmware' | 'speed_mode'>> {
  const last = await lastPrintOf(write.db, write.studyId, [...contenders]);
  const { plate = null, nozzle_mm = null, firmware = null, speed_mode = null } = last ?? {};
  return { plate, nozzle_mm, firmware, speed_mode };
}

/** The parts of a print that its machine ended: as many as its plate holds, each with a sticker's code. */
async function partsOf(
  { write }: Bench,
  print: Stored<'open_prints'>,
): Promise<Row<'specimens'>[]> {
  const places = await listRowsBy(
    write.db,
    write.studyId,
    'copy_places',
    'artefact_id',
    print.artefact_id,
  );
  const sorted = [...places].sort((a, b) => a.copy - b.copy);
  const copies = sorted.length === 0 ? [{ x_mm: null, y_mm: null }] : sorted;
  return copies.map(({ x_mm, y_mm }, at) =>
    fullRow('specimens', {
      specimen_id: idOf(write.studyId, print.print_id, 'part', String(at + 1)),
      print_id: print.print_id,
      copy: at + 1,
      plate_x_mm: x_mm,
      plate_y_mm: y_mm,
    }),
  );
}

async function noteEvent(
  write: Write,
  print_id: string,
  kind: PrintEventKind,
  at: string,
): Promise<void> {
  const event_id = idOf(write.studyId, print_id, kind, at);
  const row = { event_id, print_id, at, kind, source: 'link' as const, operator: null };
  await insertRow(write, 'print_events', row);
}

/** Ends a print as its machine says; the ledger of its events gives its times. */
async function endByLink(
  bench: Bench,
  print: Stored<'open_prints'>,
  step: Extract<Step, { kind: 'end' }>,
  heard: LinkMachine,
): Promise<void> {
  const { write, machineId } = bench;
  const { db, studyId } = write;
  const { row_version: _, ...known } = print;
  const { print_id } = known;
  await noteEvent(write, print_id, 'ended', step.at);
  const events = await eventsOfPrint(db, studyId, print_id);
  const ledger = ledgerOf(known.started_at ?? step.at, events, step.at);
  const energy =
    heard.energy_wh !== null && heard.energy_start_wh !== null
      ? heard.energy_wh - heard.energy_start_wh
      : null;
  const share = step.outcome === 'success' ? 1 : step.progress;
  const file = await filamentOfFile(db, studyId, known.toolpath);
  const fromFile = (value: number | null) => (value === null ? null : share * value);
  const isFromFile = known.filament_g === null && file.filament_g !== null;
  await endPrint(
    write,
    {
      ...known,
      ended_at: step.at,
      outcome: step.outcome,
      progress_pct: Math.round(100 * step.progress),
      heat_s: known.heat_s ?? (ledger.isHeatKnown ? ledger.heat_s : null),
      print_s: known.print_s ?? Math.max(1, ledger.print_s),
      paused_s: known.paused_s ?? ledger.paused_s + ledger.stalled_s,
      energy_wh: known.energy_wh ?? energy,
      filament_g: known.filament_g ?? fromFile(file.filament_g),
      filament_m: known.filament_m ?? fromFile(file.filament_m),
      filament_from: isFromFile ? 'file' : known.filament_from,
    },
    step.outcome === 'success' ? await partsOf(bench, print) : [],
  );
  const noteIncident = (mode: IncidentMode, at: string, downtime_s: number | null) =>
    insertRow(write, 'incidents', {
      incident_id: idOf(studyId, print_id, mode, at),
      machine_id: machineId,
      print_id,
      at,
      mode,
      cause: 'unknown',
      downtime_s,
      progress_pct: mode === step.mode ? Math.round(100 * step.progress) : null,
      action: null,
      hands_s: null,
      note: 'from the bench link, to be confirmed',
    });
  const stood = events.find((event) => event.kind === 'stalled');
  if (stood && ledger.stalled_s > 0) {
    await noteIncident('stalled', stood.at, Math.round(ledger.stalled_s));
  }
  if (step.mode !== null) await noteIncident(step.mode, step.at, null);
}
