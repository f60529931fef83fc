import {
  fullRow,
  type Cause,
  type IncidentMode,
  type Outcome,
  type Row,
  type Tables,
} from '../../src/core/model/study';
import { TILE_PLACES } from './tile-places';
import { CHARACTERS, type Character } from './lineup';
import { round, type Draws } from './random';
import type { Sliced } from './slicing';

interface Job {
  artefact: string;
  repeats: number;
  /** Repeats that are planned, where some are still owed. */
  planned?: number;
}

const JOBS: readonly Job[] = [
  { artefact: 'stair-block', repeats: 4 },
  { artefact: 'tile-field', repeats: 3 },
  { artefact: 'spire-pair', repeats: 2 },
  { artefact: 'ring-stack', repeats: 2 },
  { artefact: 'echo-wall', repeats: 1, planned: 2 },
  { artefact: 'lantern', repeats: 1, planned: 2 },
];

interface Mishap {
  contender: string;
  artefact: string;
  repeat: number;
  outcome: Outcome;
  progress: number;
  mode: IncidentMode;
  cause: Cause;
  downtime_s: number;
  hands_s: number | null;
  action: string | null;
  note: string;
}

const MISHAPS: readonly Mishap[] = [
  {
    contender: 'A-stock',
    artefact: 'stair-block',
    repeat: 2,
    outcome: 'rescued',
    progress: 12,
    mode: 'first-layer',
    cause: 'operator',
    downtime_s: 360,
    hands_s: 300,
    action: 'plate turned round, started again',
    note: 'the plate had been put on turned, its front to the back',
  },
  {
    contender: 'A-stock',
    artefact: 'ring-stack',
    repeat: 2,
    outcome: 'aborted',
    progress: 34,
    mode: 'other',
    cause: 'operator',
    downtime_s: 870,
    hands_s: 240,
    action: 'spool changed, printed again another day',
    note: 'the wrong spool was on: seen at a third by its colour',
  },
  {
    contender: 'B-stock',
    artefact: 'lantern',
    repeat: 1,
    outcome: 'success',
    progress: 55,
    mode: 'under-extruded',
    cause: 'material',
    downtime_s: 1560,
    hands_s: 600,
    action: 'spool changed',
    note: 'damp spool: thin walls from half height on, paused and changed',
  },
  {
    contender: 'C-stock',
    artefact: 'echo-wall',
    repeat: 1,
    outcome: 'success',
    progress: 71,
    mode: 'connection-lost',
    cause: 'environment',
    downtime_s: 0,
    hands_s: 60,
    action: null,
    note: 'the harbour’s network was away, the print went on',
  },
  {
    contender: 'D-stock',
    artefact: 'stair-block',
    repeat: 3,
    outcome: 'failed',
    progress: 61,
    mode: 'layer-shift',
    cause: 'machine',
    downtime_s: 720,
    hands_s: 900,
    action: 'belt tightened',
    note: 'belt slipped on a long travel',
  },
  {
    contender: 'D-stock',
    artefact: 'spire-pair',
    repeat: 2,
    outcome: 'failed',
    progress: 18,
    mode: 'detached',
    cause: 'machine',
    downtime_s: 435,
    hands_s: 300,
    action: 'plate levelled',
    note: 'one spire let go where the plate lies low',
  },
  {
    contender: 'D-stock',
    artefact: 'tile-field',
    repeat: 2,
    outcome: 'rescued',
    progress: 40,
    mode: 'stalled',
    cause: 'machine',
    downtime_s: 6480,
    hands_s: 390,
    action: 'answered on the screen, went on',
    note: 'waited with a question on its screen for an hour and three quarters',
  },
  {
    contender: 'D-stock',
    artefact: 'lantern',
    repeat: 1,
    outcome: 'rescued',
    progress: 3,
    mode: 'heating-fault',
    cause: 'machine',
    downtime_s: 2100,
    hands_s: 1200,
    action: 'plug pressed in, went on',
    note: 'nozzle thermometer jumped by 30 °C, heaters off',
  },
];

const STARTING_DAY = Date.UTC(2026, 2, 2);
const DAY_S = 24 * 3600;
const OPENS_S = 7 * 3600;
const CLOSES_S = 17 * 3600;

/** Seconds since the start as a local time of the harbour town. */
function timeAt(seconds: number): string {
  const offsetHours = seconds >= 27 * DAY_S ? 2 : 1;
  const local = new Date(STARTING_DAY + seconds * 1000 + offsetHours * 3_600_000);
  return `${local.toISOString().slice(0, 19)}+0${offsetHours}:00`;
}

/** The prints, incidents and specimens of three weeks at the bench. */
export function runs(
  draws: Draws,
  sliced: ReadonlyMap<string, Sliced>,
): Pick<Tables, 'planned' | 'prints' | 'incidents' | 'specimens'> {
  const cells = JOBS.flatMap((job) =>
    Array.from({ length: job.repeats }, (_, at) => ({ job, repeat: at + 1 })),
  );
  const planned = cells
    .flatMap(({ job, repeat }) => CHARACTERS.map((character) => ({ job, repeat, character })))
    .map((run) => ({ ...run, block: run.repeat * 10 + draws.between(0, 9) }))
    .sort((a, b) => a.block - b.block);
  const freeAt = new Map<string, number>();
  const prints: Row<'prints'>[] = [];
  const incidents: Row<'incidents'>[] = [];
  const specimens: Row<'specimens'>[] = [];
  planned.forEach(({ job, repeat, character }, at) => {
    const mishap = MISHAPS.find(
      (candidate) =>
        candidate.contender === character.contender &&
        candidate.artefact === job.artefact &&
        candidate.repeat === repeat,
    );
    const file = sliced.get(`${character.contender} ${job.artefact}`);
    if (!file) throw new Error(`no sliced file for ${job.artefact} on ${character.contender}`);
    const print = makePrint(draws, at + 1, job, repeat, character, mishap, planned.length, file);
    const machine = print.contender_id.slice(0, 1);
    const busy_s =
      (print.heat_s ?? 0) +
      (print.print_s ?? 0) +
      (print.paused_s ?? 0) +
      (mishap?.downtime_s ?? 0);
    const start = nextSlot(freeAt.get(machine) ?? OPENS_S + draws.between(0, 1800));
    freeAt.set(machine, start + busy_s + draws.between(2 * 3600, 20 * 3600));
    print.started_at = timeAt(Math.round(start));
    print.ended_at = timeAt(Math.round(start + busy_s));
    prints.push(print);
    if (mishap) incidents.push(bookIncident(print, mishap, incidents.length + 1, start));
    if (print.outcome === 'success' || print.outcome === 'rescued') {
      specimens.push(...specimensOf(print, specimens.length + 1));
    }
  });
  incidents.push({
    incident_id: `I-${String(incidents.length + 1).padStart(2, '0')}`,
    machine_id: 'gannet',
    print_id: null,
    at: timeAt(11 * DAY_S + 21.5 * 3600),
    progress_pct: null,
    mode: 'false-alarm',
    cause: 'machine',
    action: 'door contact bent back',
    downtime_s: 9.5 * 3600,
    hands_s: 180,
    note: 'the door contact said open all night: what was sent in the evening did not start',
  });
  const plan = JOBS.flatMap((job) =>
    CHARACTERS.map(({ contender }) => ({
      contender_id: contender,
      artefact_id: job.artefact,
      material_id: 'pla-0417',
      repeats: job.planned ?? job.repeats,
      toolpath: sliced.get(`${contender} ${job.artefact}`)?.path ?? null,
    })),
  );
  return { planned: plan, prints, incidents, specimens };
}

/** The next time from `free` on at which somebody is there to start a print. */
function nextSlot(free: number): number {
  const day = Math.floor(free / DAY_S);
  const within = free - day * DAY_S;
  if (within < OPENS_S) return day * DAY_S + OPENS_S;
  return within > CLOSES_S ? (day + 1) * DAY_S + OPENS_S : free;
}

function makePrint(
  draws: Draws,
  order: number,
  job: Job,
  repeat: number,
  character: Character,
  mishap: Mishap | undefined,
  planned: number,
  { facts, path }: Sliced,
): Row<'prints'> {
  const isCut = mishap?.outcome === 'failed' || mishap?.outcome === 'aborted';
  const share = isCut ? mishap.progress / 100 : 1;
  const estimate = Math.round(facts.annotated.time_s ?? facts.time_s);
  const grams = (facts.filament_g ?? 0) * share * (1 + draws.noise(0.008)) + 0.4;
  const isB = character.contender.startsWith('B');
  const isC = character.contender.startsWith('C');
  const paused = mishap?.mode === 'under-extruded' ? 1500 : 0;
  return {
    print_id: `P-${String(order).padStart(3, '0')}`,
    contender_id: character.contender,
    artefact_id: job.artefact,
    material_id: order <= planned / 2 ? 'pla-0417' : 'pla-0502',
    repeat,
    order,
    started_at: null,
    ended_at: null,
    estimate_s: estimate,
    heat_s: Math.round(draws.between(170, 230) + (character.contender === 'D-stock' ? 180 : 0)),
    print_s: Math.max(
      30,
      Math.round(estimate * character.optimism * share * (1 + draws.noise(0.01))),
    ),
    paused_s: paused,
    filament_g: round(grams, 2),
    waste_g: round(isCut ? grams : 0.4 + draws.between(0, 0.2), 2),
    filament_m: round(grams / 2.98, 3),
    energy_wh: round((estimate * share * (isB ? 150 : 95)) / 3600 + 30, 0),
    outcome: mishap?.outcome ?? 'success',
    progress_pct: isCut ? mishap.progress : 100,
    firmware: isB ? (order <= 31 ? '1.9.0' : '1.9.2') : null,
    plate: isC ? 'smooth' : 'textured',
    nozzle_mm: 0.4,
    ambient_c: round(20.5 + draws.noise(0.6), 1),
    humidity_pct: round(47 + draws.noise(3), 0),
    noise_db: null,
    noise_distance_m: null,
    speed_mode: null,
    filament_from: 'weighed',
    operator: draws.chance(0.6) ? 'KM' : 'TS',
    toolpath: path,
  };
}

const MACHINE_OF: Record<string, string> = { A: 'auklet', B: 'gannet', C: 'petrel', D: 'fulmar' };

function bookIncident(
  print: Row<'prints'>,
  mishap: Mishap,
  number: number,
  start: number,
): Row<'incidents'> {
  const at = start + (print.heat_s ?? 0) + ((print.print_s ?? 0) * mishap.progress) / 100;
  return {
    incident_id: `I-${String(number).padStart(2, '0')}`,
    machine_id: MACHINE_OF[print.contender_id.slice(0, 1)] ?? '',
    print_id: print.print_id,
    at: timeAt(Math.round(at)),
    progress_pct: mishap.progress,
    mode: mishap.mode,
    cause: mishap.cause,
    action: mishap.action,
    downtime_s: mishap.downtime_s,
    hands_s: mishap.hands_s,
    note: mishap.note,
  };
}

function specimensOf(print: Row<'prints'>, from: number): Row<'specimens'>[] {
  const places = print.artefact_id === 'tile-field' ? TILE_PLACES : [[0, 0] as const];
  return places.map(([x, y], at) => {
    const code = `K7-${String(from + at).padStart(3, '0')}`;
    return fullRow('specimens', {
      specimen_id: code,
      print_id: print.print_id,
      copy: at + 1,
      code,
      plate_x_mm: x,
      plate_y_mm: y,
    });
  });
}
