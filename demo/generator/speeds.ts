import { uidOf } from './things';
import {
  fullRow,
  emptyTables,
  TABLE_NAMES,
  type Row,
  type Study,
  type Tables,
} from '../../src/core/model/study';
import { artefacts, type DemoPart } from './artefacts';
import { CHARACTERS, lineup, type Character } from './lineup';
import { measured } from './measured';
import { PLAIN, type PhotoSession } from './photos';
import { gannetPrint } from './print';
import { drawsFrom, type Draws } from './random';
import { slicedAtSpeeds, type Sliced } from './slicing';
import type { PartRows } from '../../src/core/geometry/parts';

const SEED = 8812;
/** The Gannet's frame swings at this, Hz: a wave is as long as the speed by it. */
const SWINGS_HZ = 96;
const REPEATS = 3;
const PARTS = ['echo-wall', 'stair-block'];
/** Days on which each repeat is printed; five walls, five blocks a day. */
const FIRST_DAY = Date.UTC(2026, 3, 7);

/** A step: its speed, how strongly the wall rings, the grade that eyes give it, what walls gain, mm. */
const STEPS = [
  { contender: 'B-120', speed: 120, contrast: 0, grade: 0, walls: 0.015 },
  { contender: 'B-160', speed: 160, contrast: 0, grade: 0, walls: 0.016 },
  { contender: 'B-200', speed: 200, contrast: 0, grade: 0, walls: 0.017 },
  { contender: 'B-240', speed: 240, contrast: 0.05, grade: 2, walls: 0.018 },
  { contender: 'B-280', speed: 280, contrast: 0.085, grade: 3, walls: 0.02 },
] as const;

/** The sliced files of the steps, by `contender artefact`. */
export const speedFiles = (): Map<string, Sliced> => slicedAtSpeeds(STEPS, PARTS);

/** Ringing from the fourth step on, a little different from print to print. */
export const speedSession: PhotoSession = {
  looksOf: ({ contender_id, repeat }) => {
    const step = STEPS.find((one) => one.contender === contender_id);
    const own = { ...PLAIN, lines: 0.06 };
    if (!step || step.contrast === 0) return own;
    const contrast = step.contrast * (0.94 + 0.06 * (repeat - 1));
    return { ...own, ringing: { wavelength: step.speed / SWINGS_HZ, decay: 4.5, contrast } };
  },
  hasShot: ({ artefact, light, view }) =>
    artefact === 'echo-wall' && view === 'front' && light === 'raking-left',
};

/** The third demo study: how fast the Gannet's outer wall may be before something is lost. */
export function gannetSpeeds(
  sliced: ReadonlyMap<string, Sliced>,
  parts: readonly DemoPart[],
): Study {
  const draws = drawsFrom(SEED);
  const all = lineup();
  const things = artefacts(parts.filter(({ artefact }) => PARTS.includes(artefact.artefact_id)));
  const prints = printsOf(draws, sliced);
  const specimens = prints.map(({ print_id }, at): Row<'specimens'> => {
    const code = `V3-${String(at + 1).padStart(2, '0')}`;
    return fullRow('specimens', {
      specimen_id: code,
      print_id,
      copy: 1,
      plate_x_mm: 0,
      plate_y_mm: 0,
      code,
    });
  });
  const own = CHARACTERS.find(({ contender }) => contender === 'B-tuned') as Character;
  const characters = STEPS.map(({ contender, walls }) => ({ ...own, contender, walls }));
  const found = measured(draws, { prints, specimens, ...things }, { characters, left: 0 });
  const tables = speedTables({ all, things, found, prints, specimens, draws, sliced });
  return {
    meta: {
      name: 'gannet-speeds',
      title: 'How fast may the Gannet’s outer wall be?',
      description:
        'The speed of the outer wall in five steps on one machine, everything else held. ' +
        'Everything in this study is invented.',
      created: '2026-04-10T16:40:00+02:00',
      intent: 'sweep',
      question: 'From which speed on does the outer wall ring, and is it worth going there?',
      reference: 'B-120',
      smallest_difference: {
        accuracy_mm: 0.03,
        surface: 5,
        time_pct: 5,
        'photo:echo-wall/ringing/raking-left/x': 0.01,
      },
      cost: null,
      scorecard: null,
      sweep: {
        setting: 'speed_outer_wall_mm_s',
        unit: 'mm/s',
        steps: STEPS.map(({ contender, speed }) => ({ contender_id: contender, value: speed })),
      },
    },
    tables,
    present: new Set(TABLE_NAMES.filter((name) => tables[name].length > 0)),
  };
}

interface SpeedTablesGiven {
  all: ReturnType<typeof lineup>;
  things: PartRows & { artefacts: Row<'artefacts'>[] };
  found: Pick<Tables, 'instruments' | 'readings' | 'unmeasured'>;
  prints: Row<'prints'>[];
  specimens: Row<'specimens'>[];
  draws: Draws;
  sliced: ReadonlyMap<string, Sliced>;
}

/** The tables of the study. */
function speedTables({ all, things, found, prints, specimens, draws, sliced }: SpeedTablesGiven) {
  const tables = {
    ...emptyTables(),
    machines: all.machines.filter((row) => row.machine_id === 'gannet'),
    profiles: [
      ...all.profiles.filter((row) => row.profile_id === 'b-stock'),
      ...STEPS.map(({ speed }) =>
        fullRow('profiles', {
          profile_id: `b-${speed}`,
          name: `Gannet, outer wall ${speed}`,
          kind: 'tuned',
          parent_id: 'b-stock',
          uid: uidOf('profile', `b-${speed}`),
        }),
      ),
    ],
    profile_settings: [
      ...all.profile_settings.filter((row) => row.profile_id === 'b-stock'),
      ...STEPS.flatMap(({ speed }) =>
        all.profile_settings
          .filter((row) => row.profile_id === 'b-tuned')
          .map((row) => ({
            ...row,
            profile_id: `b-${speed}`,
            value: row.key === 'speed_outer_wall_mm_s' ? String(speed) : row.value,
          })),
      ),
    ],
    materials: all.materials.filter((row) => row.material_id === 'pla-0502'),
    contenders: STEPS.map(({ contender, speed }) =>
      fullRow('contenders', {
        contender_id: contender,
        label: `Gannet X24 at ${speed} mm/s`,
        machine_id: 'gannet',
        profile_id: `b-${speed}`,
      }),
    ),
    ...things,
    ...found,
    prints,
    specimens,
    ...judgedOf(draws, prints, specimens, things.zones),
    planned: STEPS.flatMap(({ contender }) =>
      PARTS.map((artefact_id) => ({
        contender_id: contender,
        artefact_id,
        material_id: 'pla-0502',
        repeats: REPEATS,
        toolpath: sliced.get(`${contender} ${artefact_id}`)?.path ?? null,
      })),
    ),
  };
  return tables;
}

function printsOf(draws: Draws, sliced: ReadonlyMap<string, Sliced>): Row<'prints'>[] {
  const runs = Array.from({ length: REPEATS }, (_, at) => at + 1).flatMap((repeat) =>
    PARTS.flatMap((artefact) => STEPS.map((step) => ({ repeat, artefact, step }))),
  );
  return runs.map(({ repeat, artefact, step }, at) => {
    const file = sliced.get(`${step.contender} ${artefact}`);
    if (!file) throw new Error(`no sliced file for ${artefact} at ${step.speed} mm/s`);
    const day = new Date(FIRST_DAY + (repeat - 1) * 86_400_000).toISOString().slice(0, 10);
    const minutes = 6 * 60 + (at % (PARTS.length * STEPS.length)) * 62;
    const two = (value: number) => String(value).padStart(2, '0');
    return gannetPrint(
      draws,
      {
        print_id: `V-${two(at + 1)}`,
        contender: step.contender,
        artefact,
        repeat,
        material: 'pla-0502',
        order: at + 1,
        firmware: '1.9.2',
        day,
        offsetHours: 2,
        startsUtc: `${two(Math.floor(minutes / 60))}:${two(minutes % 60)}:00`,
      },
      file,
    );
  });
}

/** Two inspectors look at every wall; where it rings they see it, and rarely differ. */
function judgedOf(
  draws: Draws,
  prints: readonly Row<'prints'>[],
  specimens: readonly Row<'specimens'>[],
  zones: readonly Row<'zones'>[],
) {
  const inspections: Row<'inspections'>[] = [];
  const findings: Row<'findings'>[] = [];
  for (const { specimen_id, print_id } of specimens) {
    const print = prints.find((one) => one.print_id === print_id);
    const step = STEPS.find((one) => one.contender === print?.contender_id);
    if (!print || !step) continue;
    for (const { zone_id } of zones.filter((one) => one.artefact_id === print.artefact_id)) {
      for (const inspector of ['KM', 'TS']) {
        inspections.push({ specimen_id, zone_id, inspector, at: print.ended_at });
        const isRinging = zone_id === 'corners' && step.grade > 0;
        const isBlobbed = zone_id === 'notch' && draws.chance(0.3);
        if (!isRinging && !isBlobbed) continue;
        findings.push({
          specimen_id,
          zone_id,
          inspector,
          defect: isRinging ? 'ringing' : 'blobs',
          grade: isRinging ? step.grade - (draws.chance(0.15) ? 1 : 0) : 1,
          cause: null,
          note: null,
          view: null,
          x_mm: null,
          y_mm: null,
          w_mm: null,
          h_mm: null,
          path: null,
        });
      }
    }
  }
  return { inspections, findings };
}
