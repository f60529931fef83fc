import { fullRow, type Row, type Study } from '../../src/core/model/study';
import type { DemoPart } from './artefacts';
import { smallStudy } from './blocks';
import type { Character } from './lineup';
import { drawsFrom } from './random';
import { uidOf } from './things';

const SEED = 1125;

const CHARACTERS: readonly Character[] = [
  {
    contender: 'R-stock',
    scaleXy: -0.0002,
    scaleZ: 0.0002,
    walls: 0.026,
    holes: -0.05,
    heights: 0.01,
    betweenPrints: 0.006,
    withinPrint: 0.011,
    tiltX: 0,
    tiltY: 0,
    optimism: 1.03,
  },
  {
    contender: 'T-stock',
    scaleXy: 0.0009,
    scaleZ: -0.001,
    walls: 0.1,
    holes: -0.16,
    heights: 0.04,
    betweenPrints: 0.012,
    withinPrint: 0.014,
    tiltX: 0,
    tiltY: 0,
    optimism: 1.15,
  },
];

const machine = (
  machine_id: string,
  name: string,
  [x, y, z]: readonly [number, number, number],
  [speed, flow, paid]: readonly [number, number, number],
): Row<'machines'> =>
  fullRow('machines', {
    machine_id,
    name,
    maker: 'Sandbar & Daughters',
    kinematics: 'cartesian-moving-bed',
    build_x_mm: x,
    build_y_mm: y,
    build_z_mm: z,
    nozzle_mm: 0.4,
    claimed_speed_mm_s: speed,
    claimed_accel_mm_s2: null,
    max_flow_mm3_s: flow,
    price_list: paid,
    price_paid: paid,
    currency: 'EUR',
    obtained: 'bought',
    firmware: '3.1',
    uid: uidOf('machine', machine_id),
  });

const profile = (profile_id: string, name: string): Row<'profiles'> =>
  fullRow('profiles', {
    profile_id,
    name,
    kind: 'stock',
    uid: uidOf('profile', profile_id),
  });

/** The study of the autumn before: two small machines for spoke keys, on the same stair block. */
export function spokeKeys(parts: readonly DemoPart[]): Study {
  const layers: Record<string, string> = { 'r-stock': '0.2', 't-stock': '0.16' };
  const print = (contender: string, day: number, estimate_s: number, firmware: string) => ({
    contender,
    artefact: 'stair-block' as const,
    material: 'pla-0288',
    start: `2025-11-0${day}T09:00:00+01:00`,
    estimate_s,
    grams: 25.6,
    firmware,
  });
  return smallStudy(drawsFrom(SEED), {
    meta: {
      name: 'spoke-keys',
      title: 'Two small machines for spoke keys',
      description:
        'The autumn before the clip bench: two small machines, printed on the same stair block. ' +
        'Everything in this study is invented.',
      created: '2025-11-12T18:00:00+01:00',
      intent: 'machines',
      question: 'Which of the two small machines is true enough for spoke keys?',
      reference: 'T-stock',
      smallest_difference: { accuracy_mm: 0.03, surface: null, time_pct: 10 },
      cost: null,
      scorecard: null,
    },
    letters: ['S', 'S1'],
    parts,
    characters: CHARACTERS,
    operator: 'TS',
    prints: [3, 4, 5].flatMap((day) => [
      print('R-stock', day, 2900, '3.1'),
      print('T-stock', day, 5600, '3.1'),
    ]),
    rows: {
      machines: [
        machine('razorbill', 'Razorbill S', [172, 168, 155], [145, 13, 207]),
        machine('turnstone', 'Turnstone mini', [118, 112, 125], [95, 7, 133]),
      ],
      profiles: [
        profile('r-stock', 'Razorbill, as shipped'),
        profile('t-stock', 'Turnstone, as shipped'),
      ],
      profile_settings: Object.entries(layers).map(([profile_id, value]) => ({
        profile_id,
        key: 'layer_height_mm',
        value,
      })),
      materials: [
        {
          material_id: 'pla-0288',
          type: 'PLA',
          maker: 'Ropewalk',
          colour: 'slate',
          lot: 'RW-0288',
          diameter_mm: 1.75,
          density_g_cm3: 1.24,
          price_per_kg: 19.5,
          currency: 'EUR',
          uid: uidOf('material', 'pla-0288'),
        },
      ],
      contenders: [
        fullRow('contenders', {
          contender_id: 'R-stock',
          label: 'Razorbill S stock',
          machine_id: 'razorbill',
          profile_id: 'r-stock',
        }),
        fullRow('contenders', {
          contender_id: 'T-stock',
          label: 'Turnstone mini stock',
          machine_id: 'turnstone',
          profile_id: 't-stock',
        }),
      ],
    },
  });
}
