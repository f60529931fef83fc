import { fullRow, emptyTables, type Row, type TableName, type Tables } from '../../src/core/study';
import { uidOf } from './things';

/** A row with the columns that are not given unknown. */
export const unknownRow = <Name extends TableName>(
  columns: readonly string[],
  row: Partial<Row<Name>>,
): Row<Name> =>
  ({ ...Object.fromEntries(columns.map((column) => [column, null])), ...row }) as Row<Name>;

/** How a contender of the demo errs: what its results must then show. */
export interface Character {
  contender: string;
  /** Relative error of scale along x and y, and along z. */
  scaleXy: number;
  scaleZ: number;
  /** What each outer size is too large, mm; inner sizes are as much too small. */
  walls: number;
  /** What a round hole loses beyond that, mm (negative: smaller). */
  holes: number;
  /** First-layer squash: what heights lose, mm. */
  heights: number;
  /** Scatter between prints and within a print, mm. */
  betweenPrints: number;
  withinPrint: number;
  /** Height gained per 100 mm of plate, mm, along x and along y. */
  tiltX: number;
  tiltY: number;
  /** Actual time over the slicer's estimate. */
  optimism: number;
}

export const CHARACTERS: readonly Character[] = [
  {
    contender: 'A-stock',
    scaleXy: 0.0002,
    scaleZ: 0,
    walls: 0.09,
    holes: -0.14,
    heights: 0.02,
    betweenPrints: 0.012,
    withinPrint: 0.012,
    tiltX: 0.004,
    tiltY: -0.006,
    optimism: 1.09,
  },
  {
    contender: 'A-tuned',
    scaleXy: 0.0001,
    scaleZ: 0,
    walls: 0.015,
    holes: -0.03,
    heights: 0.015,
    betweenPrints: 0.01,
    withinPrint: 0.012,
    tiltX: 0.004,
    tiltY: -0.006,
    optimism: 1.05,
  },
  {
    contender: 'B-stock',
    scaleXy: -0.0001,
    scaleZ: -0.0003,
    walls: 0.02,
    holes: -0.06,
    heights: 0,
    betweenPrints: 0.008,
    withinPrint: 0.01,
    tiltX: 0.002,
    tiltY: 0.003,
    optimism: 1.02,
  },
  {
    contender: 'B-tuned',
    scaleXy: -0.0001,
    scaleZ: -0.0002,
    walls: 0.015,
    holes: -0.05,
    heights: 0,
    betweenPrints: 0.008,
    withinPrint: 0.01,
    tiltX: 0.002,
    tiltY: 0.003,
    optimism: 1.02,
  },
  {
    contender: 'C-stock',
    scaleXy: -0.0024,
    scaleZ: 0.0004,
    walls: 0.03,
    holes: -0.08,
    heights: 0.02,
    betweenPrints: 0.014,
    withinPrint: 0.012,
    tiltX: -0.005,
    tiltY: 0.002,
    optimism: 1.06,
  },
  {
    contender: 'D-stock',
    scaleXy: 0.0006,
    scaleZ: 0.001,
    walls: 0.07,
    holes: -0.12,
    heights: 0.05,
    betweenPrints: 0.04,
    withinPrint: 0.015,
    tiltX: 0.055,
    tiltY: 0.03,
    optimism: 1.12,
  },
];

/** The machines, profiles, materials and contenders of the clip bench. */
export function lineup(): Pick<
  Tables,
  | 'machines'
  | 'machine_changes'
  | 'profiles'
  | 'profile_settings'
  | 'materials'
  | 'spools'
  | 'contenders'
  | 'claims'
  | 'noise'
> {
  const tables = emptyTables();
  const machine = (
    machine_id: string,
    name: string,
    maker: string,
    kinematics: Row<'machines'>['kinematics'],
    [x, y, z]: readonly [number, number, number],
    [speed, accel, flow]: readonly [number, number | null, number],
    [list, paid]: readonly [number, number],
    firmware: string,
  ): Row<'machines'> =>
    fullRow('machines', {
      machine_id,
      name,
      maker,
      kinematics,
      build_x_mm: x,
      build_y_mm: y,
      build_z_mm: z,
      nozzle_mm: 0.4,
      claimed_speed_mm_s: speed,
      claimed_accel_mm_s2: accel,
      max_flow_mm3_s: flow,
      price_list: list,
      price_paid: paid,
      currency: 'EUR',
      obtained: 'bought',
      firmware,
      uid: uidOf('machine', machine_id),
    });
  tables.machines = [
    machine(
      'auklet',
      'Auklet 23',
      'Skerry Works',
      'cartesian-moving-bed',
      [230, 230, 250],
      [250, null, 12],
      [289, 289],
      '2.4.1',
    ),
    machine(
      'gannet',
      'Gannet X26',
      'Holm Dynamics',
      'corexy',
      [260, 260, 260],
      [500, 20_000, 28],
      [649, 649],
      '1.9.2',
    ),
    machine(
      'petrel',
      'Petrel D30',
      'Trident Apparatus',
      'delta',
      [300, 300, 380],
      [400, null, 40],
      [569, 569],
      '0.8.12',
    ),
    machine(
      'fulmar',
      'Fulmar 42',
      'Skerry Works',
      'cartesian-moving-bed',
      [420, 420, 480],
      [300, null, 16],
      [749, 640],
      '2.4.1',
    ),
  ];
  const profile = (
    profile_id: string,
    name: string,
    kind: 'stock' | 'tuned',
    parent_id: string | null,
    notes: string | null = null,
  ): Row<'profiles'> =>
    fullRow('profiles', {
      profile_id,
      name,
      kind,
      parent_id,
      notes,
      uid: uidOf('profile', profile_id),
    });
  tables.profiles = [
    profile('a-stock', 'Auklet, as shipped', 'stock', null),
    profile(
      'a-tuned',
      'Auklet, clip bench',
      'tuned',
      'a-stock',
      'Walls and holes compensated after the first stair blocks.',
    ),
    profile('b-stock', 'Gannet, as shipped', 'stock', null),
    profile('b-tuned', 'Gannet, clip bench', 'tuned', 'b-stock'),
    profile('c-stock', 'Petrel, as shipped', 'stock', null),
    profile('d-stock', 'Fulmar, as shipped', 'stock', null),
  ];
  const shared = {
    layer_height_mm: '0.2',
    first_layer_height_mm: '0.24',
    line_width_mm: '0.45',
    walls: '3',
    top_layers: '5',
    bottom_layers: '4',
    infill_share: '0.15',
    infill_pattern: 'grid',
    support: 'none',
    adhesion: 'skirt',
    nozzle_temp_c: '215',
    bed_temp_c: '60',
  };
  const settings: Record<string, Record<string, string>> = {
    'a-stock': {
      ...shared,
      speed_outer_wall_mm_s: '120',
      flow_factor: '1',
      hole_compensation_mm: '0',
      wall_compensation_mm: '0',
    },
    'a-tuned': {
      ...shared,
      speed_outer_wall_mm_s: '90',
      flow_factor: '0.97',
      hole_compensation_mm: '0.06',
      wall_compensation_mm: '-0.035',
      nozzle_temp_c: '210',
    },
    'b-stock': { ...shared, speed_outer_wall_mm_s: '200', flow_factor: '0.98' },
    'b-tuned': { ...shared, speed_outer_wall_mm_s: '180', flow_factor: '0.98' },
    'c-stock': { ...shared, speed_outer_wall_mm_s: '160', flow_factor: '1' },
    'd-stock': { ...shared, speed_outer_wall_mm_s: '110', flow_factor: '1' },
  };
  tables.profile_settings = Object.entries(settings).flatMap(([profile_id, values]) =>
    Object.entries(values).map(([key, value]) => ({ profile_id, key, value })),
  );
  const material = (
    material_id: string,
    type: string,
    colour: string,
    lot: string | null,
    density_g_cm3: number,
    price_per_kg: number,
  ): Row<'materials'> => ({
    material_id,
    type,
    maker: 'Ropewalk',
    colour,
    lot,
    diameter_mm: 1.75,
    density_g_cm3,
    price_per_kg,
    currency: 'EUR',
    uid: uidOf('material', material_id),
  });
  tables.materials = [
    material('pla-0417', 'PLA', 'slate', 'RW-0417', 1.24, 19.5),
    material('pla-0502', 'PLA', 'slate', 'RW-0502', 1.24, 19.5),
    material('petg-clear', 'PETG', 'clear', null, 1.27, 22),
  ];
  const contender = (
    contender_id: string,
    label: string,
    machine_id: string,
    profile_id: string,
  ): Row<'contenders'> => fullRow('contenders', { contender_id, label, machine_id, profile_id });
  tables.contenders = [
    contender('A-stock', 'Auklet 23 stock', 'auklet', 'a-stock'),
    contender('A-tuned', 'Auklet 23 tuned', 'auklet', 'a-tuned'),
    contender('B-stock', 'Gannet X26 stock', 'gannet', 'b-stock'),
    contender('B-tuned', 'Gannet X26 tuned', 'gannet', 'b-tuned'),
    contender('C-stock', 'Petrel D30 stock', 'petrel', 'c-stock'),
    contender('D-stock', 'Fulmar 42 stock', 'fulmar', 'd-stock'),
  ];
  const speedClaim = (
    claim_id: string,
    machine_id: string,
    value: number,
    finding: Row<'claims'>['finding'],
    evidence: string | null,
  ): Row<'claims'> =>
    fullRow('claims', {
      claim_id,
      machine_id,
      statement: `Prints at up to ${value} mm/s`,
      quantity: 'speed',
      unit: 'mm/s',
      value,
      finding,
      evidence,
    });
  tables.claims = [
    speedClaim(
      'speed-a',
      'auklet',
      250,
      'refuted',
      'No file of its own profile asks for more than 180 mm/s.',
    ),
    speedClaim(
      'speed-b',
      'gannet',
      500,
      'partly',
      'Asked for on infill only, and reached on long lines.',
    ),
    speedClaim('speed-c', 'petrel', 400, 'confirmed', 'Reached on the tile field.'),
    speedClaim('speed-d', 'fulmar', 300, 'untested', null),
  ];
  const noise = (machine_id: string, idle: number, printing: number): Row<'noise'>[] => [
    { machine_id, state: 'idle', distance_m: 1, db_a: idle },
    { machine_id, state: 'printing', distance_m: 1, db_a: printing },
  ];
  tables.noise = [
    ...noise('auklet', 34.1, 48.7),
    ...noise('gannet', 38.6, 56.2),
    ...noise('petrel', 33.8, 51.4),
    ...noise('fulmar', 36, 50.3),
  ];
  const change = (
    change_id: string,
    machine_id: string,
    at: string,
    kind: Row<'machine_changes'>['kind'],
    what: string,
  ): Row<'machine_changes'> => ({ change_id, machine_id, at, kind, what, operator: 'KM' });
  tables.machine_changes = [
    change('gannet-1', 'gannet', '2026-03-11T07:40:00+01:00', 'firmware', '1.9.0 to 1.9.2'),
    change('fulmar-1', 'fulmar', '2026-03-10T09:10:00+01:00', 'maintenance', 'belt tightened'),
    change('fulmar-2', 'fulmar', '2026-03-07T12:05:00+01:00', 'part', 'heater cable replaced'),
  ];
  const spool = (spool_id: string, material_id: string, opened_at: string): Row<'spools'> => ({
    ...{ spool_id, material_id, opened_at, mass_g: 1000, notes: null },
    dried_at: opened_at.replace('T07', 'T01'),
    ...{ dried_c: 50, dried_h: 6 },
  });
  tables.spools = [
    spool('RW-0417-a', 'pla-0417', '2026-03-02T07:30:00+01:00'),
    spool('RW-0417-b', 'pla-0417', '2026-03-05T07:30:00+01:00'),
    spool('RW-0502-a', 'pla-0502', '2026-03-09T07:30:00+01:00'),
  ];
  const { machines, profiles, profile_settings, materials, contenders, claims } = tables;
  return {
    machines,
    profiles,
    profile_settings,
    materials,
    contenders,
    claims,
    noise: tables.noise,
    machine_changes: tables.machine_changes,
    spools: tables.spools,
  };
}
