import {
  fullRow,
  emptyTables,
  type Row,
  type TableName,
  type Tables,
} from '../../src/core/model/study';
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
    scaleXy: 0.0031,
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

/** The two slicing programs, and their versions. */
const LATHE = ['Lathe-and-Layer', '4.1'] as const;
const STRAKE = ['Strake', '0.9'] as const;

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
  | 'equipment'
  | 'noise'
> {
  const tables = emptyTables();
  setMachines(tables);
  setProfiles(tables);
  setMaterials(tables);
  setContenders(tables);
  setWhatIsSaidOfThem(tables);
  setChangesAndSpools(tables);
  const {
    machines,
    profiles,
    profile_settings,
    materials,
    contenders,
    claims,
    equipment: needed,
  } = tables;
  return {
    machines,
    profiles,
    profile_settings,
    materials,
    contenders,
    claims,
    equipment: needed,
    noise: tables.noise,
    machine_changes: tables.machine_changes,
    spools: tables.spools,
  };
}

/** The machines. */
function setMachines(tables: Tables) {
  const machine = (
    machine_id: string,
    name: string,
    maker: string,
    own: Pick<Row<'machines'>, 'kinematics' | 'price_list' | 'firmware' | 'mass_kg'> &
      Partial<Row<'machines'>>,
    [x, y, z]: readonly [number, number, number],
    [outer_x_mm, outer_y_mm, outer_z_mm]: readonly [number, number, number],
    [speed, accel, flow]: readonly [number, number | null, number],
  ): Row<'machines'> =>
    fullRow('machines', {
      machine_id,
      name,
      maker,
      nozzle_mm: 0.4,
      currency: 'EUR',
      build_x_mm: x,
      build_y_mm: y,
      build_z_mm: z,
      outer_x_mm,
      outer_y_mm,
      outer_z_mm,
      claimed_speed_mm_s: speed,
      claimed_accel_mm_s2: accel,
      max_flow_mm3_s: flow,
      obtained: 'bought',
      price_paid: own.price_list,
      ...own,
      uid: uidOf('machine', machine_id),
    });
  tables.machines = [
    machine(
      ...(['auklet', 'Auklet 19', 'Skerry Works'] as const),
      {
        kinematics: 'cartesian-moving-bed',
        price_list: 231,
        firmware: '2.4.1',
        mass_kg: 8.4,
      },
      ...([
        [190, 185, 205],
        [415, 440, 465],
        [160, null, 11],
      ] as const),
    ),
    machine(
      ...(['gannet', 'Gannet X24', 'Holm Dynamics'] as const),
      { kinematics: 'corexy', price_list: 689, firmware: '1.9.2', mass_kg: 14.2 },
      ...([
        [245, 245, 265],
        [405, 430, 545],
        [430, 17_000, 26],
      ] as const),
    ),
    machine(
      ...(['petrel', 'Petrel G27', 'Trident Apparatus'] as const),
      { kinematics: 'cartesian-gantry', price_list: 543, firmware: '0.8.12', mass_kg: 12.1 },
      ...([
        [270, 225, 240],
        [520, 475, 510],
        [330, null, 31],
      ] as const),
    ),
    machine(
      ...(['fulmar', 'Fulmar 38', 'Skerry Works'] as const),
      {
        kinematics: 'cartesian-gantry',
        price_list: 812,
        price_paid: null,
        firmware: '2.4.3',
        mass_kg: 27.5,
        obtained: 'loaned',
        return_by: '2026-04-17',
      },
      ...([
        [380, 340, 390],
        [590, 565, 680],
        [195, null, 17],
      ] as const),
    ),
  ];
}

/** Their profiles, with the settings in which they differ. */
function setProfiles(tables: Tables) {
  const profile = (
    profile_id: string,
    name: string,
    kind: 'stock' | 'tuned',
    slicer: readonly [string, string],
    origin: Row<'profiles'>['origin'],
    more: Partial<Row<'profiles'>> = {},
  ): Row<'profiles'> =>
    fullRow('profiles', {
      profile_id,
      name,
      kind,
      slicer: slicer[0],
      slicer_version: slicer[1],
      origin,
      ...more,
      uid: uidOf('profile', profile_id),
    });
  tables.profiles = [
    profile('a-stock', 'Auklet, as shipped', 'stock', LATHE, 'maker'),
    profile('a-tuned', 'Auklet, clip bench', 'tuned', LATHE, 'own', {
      parent_id: 'a-stock',
      notes: 'Walls and holes corrected after the first stair blocks.',
    }),
    profile('b-stock', 'Gannet, as shipped', 'stock', STRAKE, 'maker'),
    profile('b-tuned', 'Gannet, clip bench', 'tuned', STRAKE, 'own', { parent_id: 'b-stock' }),
    profile('c-stock', 'Petrel, as shipped', 'stock', STRAKE, 'maker'),
    profile('c-stranger', 'Petrel, a stranger’s', 'tuned', STRAKE, 'community', {
      parent_id: 'c-stock',
      source: 'a letter to the club',
      got_at: '2026-02-24',
      notes: 'Read, not printed with yet.',
    }),
    profile('d-stock', 'Fulmar, as shipped', 'stock', LATHE, 'slicer'),
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
      speed_outer_wall_mm_s: '95',
      flow_factor: '1',
      hole_correction_mm: '0',
      wall_correction_mm: '0',
    },
    'a-tuned': {
      ...shared,
      speed_outer_wall_mm_s: '75',
      flow_factor: '0.97',
      hole_correction_mm: '0.06',
      wall_correction_mm: '-0.035',
      nozzle_temp_c: '210',
    },
    'b-stock': { ...shared, speed_outer_wall_mm_s: '200', flow_factor: '0.98' },
    'b-tuned': { ...shared, speed_outer_wall_mm_s: '180', flow_factor: '0.98' },
    'c-stock': { ...shared, speed_outer_wall_mm_s: '145', flow_factor: '1' },
    'c-stranger': {
      ...shared,
      speed_outer_wall_mm_s: '205',
      flow_factor: '0.95',
      nozzle_temp_c: '224',
    },
    'd-stock': { ...shared, speed_outer_wall_mm_s: '105', flow_factor: '1' },
  };
  tables.profile_settings = Object.entries(settings).flatMap(([profile_id, values]) =>
    Object.entries(values).map(([key, value]) => ({ profile_id, key, value })),
  );
}

/** What is printed of. */
function setMaterials(tables: Tables) {
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
}

/** Who is compared. */
function setContenders(tables: Tables) {
  const contender = (
    contender_id: string,
    label: string,
    machine_id: string,
    profile_id: string,
  ): Row<'contenders'> => fullRow('contenders', { contender_id, label, machine_id, profile_id });
  tables.contenders = [
    contender('A-stock', 'Auklet 19 stock', 'auklet', 'a-stock'),
    contender('A-tuned', 'Auklet 19 tuned', 'auklet', 'a-tuned'),
    contender('B-stock', 'Gannet X24 stock', 'gannet', 'b-stock'),
    contender('B-tuned', 'Gannet X24 tuned', 'gannet', 'b-tuned'),
    contender('C-stock', 'Petrel G27 stock', 'petrel', 'c-stock'),
    contender('D-stock', 'Fulmar 38 stock', 'fulmar', 'd-stock'),
  ];
}

/** What they need besides, what is claimed of them, how loud they are. */
function setWhatIsSaidOfThem(tables: Tables) {
  const equipment = (
    machine_id: string,
    item: string,
    kind: Row<'equipment'>['kind'],
    price: number,
    note: string | null,
  ): Row<'equipment'> =>
    fullRow('equipment', { machine_id, item, kind, price, currency: 'EUR', note });
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
      160,
      'refuted',
      'No file of its own profile asks for more than 145 mm/s.',
    ),
    speedClaim(
      'speed-b',
      'gannet',
      430,
      'partly',
      'Asked for on infill only, and reached on long lines.',
    ),
    speedClaim('speed-c', 'petrel', 330, 'confirmed', 'Reached on the tile field.'),
    speedClaim('speed-d', 'fulmar', 195, 'untested', null),
  ];
  tables.equipment = [
    equipment('gannet', 'dry box', 'needed', 74, 'PETG came out rough without it.'),
    equipment('petrel', 'plate adhesive set', 'needed', 18, null),
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
}

/** What was changed at a machine, and the spools. */
function setChangesAndSpools(tables: Tables) {
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
    change(
      'fulmar-2',
      'fulmar',
      '2026-03-07T12:05:00+01:00',
      'part',
      'nozzle thermometer replaced',
    ),
  ];
  const spool = (spool_id: string, material_id: string, opened_at: string): Row<'spools'> => ({
    spool_id,
    material_id,
    opened_at,
    mass_g: 1000,
    notes: null,
    dried_at: opened_at.replace('T07', 'T01'),
    dried_c: 50,
    dried_h: 6,
  });
  tables.spools = [
    spool('RW-0417-a', 'pla-0417', '2026-03-02T07:30:00+01:00'),
    spool('RW-0417-b', 'pla-0417', '2026-03-05T07:30:00+01:00'),
    spool('RW-0502-a', 'pla-0502', '2026-03-09T07:30:00+01:00'),
  ];
}
