/** Units that a column's name can end in, as people write them. */
const UNITS: readonly (readonly [string, string])[] = [
  ['_mm3_s', 'mm³/s'],
  ['_mm_s2', 'mm/s²'],
  ['_mm_s', 'mm/s'],
  ['_g_cm3', 'g/cm³'],
  ['_mm', 'mm'],
  ['_pct', '%'],
  ['_wh', 'Wh'],
  ['_db', 'dB(A)'],
  ['_kg', 'kg'],
  ['_s', 's'],
  ['_g', 'g'],
  ['_m', 'm'],
  ['_h', 'h'],
  ['_c', '°C'],
];

/** Names of columns where the column's own words would be short of what people say. */
const NAMES: Record<string, string> = {
  lower_tol_mm: 'lower limit',
  upper_tol_mm: 'upper limit',
  nominal_mm: 'nominal',
  estimate_s: 'estimated time',
  heat_s: 'heating time',
  print_s: 'print time',
  paused_s: 'paused time',
  filament_g: 'filament used, part and waste',
  waste_g: 'waste included',
  filament_m: 'filament length',
  energy_wh: 'energy',
  progress_pct: 'progress',
  ambient_c: 'ambient temperature',
  noise_db: 'noise',
  downtime_s: 'downtime',
  hands_s: 'hands-on time',
  price_per_kg: 'price per kg',
  price_list: 'list price',
  max_flow_mm3_s: 'flow limit',
  claimed_speed_mm_s: 'claimed speed',
  claimed_accel_mm_s2: 'claimed acceleration',
  expanded_uncertainty_mm: 'expanded uncertainty (k = 2)',
  toolpath: 'sliced file',
  serial: 'serial number',
  uid: 'permanent id',
  answered_at: 'answered at',
  seconds: 'duration',
  kinematics: 'motion',
  at: 'when',
  dried_at: 'dried on',
  dried_c: 'drying temperature',
  dried_h: 'drying time',
  db_a: 'level',
  px_per_mm: 'pixels per mm',
  mesh_sha256: 'SHA-256 of the mesh',
  noise_distance_m: 'noise measured at',
  lower: 'lower limit',
  upper: 'upper limit',
  sign: 'for or against',
  snag: 'snag, 0–4',
  trust: 'trust, 0–4',
  damage: 'damage, 0–4',
  text: 'remark',
  label: 'label',
  change: 'what was changed',
  contender_id: 'contender',
  machine_id: 'machine',
  profile_id: 'profile',
  parent_id: 'stock parent',
  material_id: 'material',
  artefact_id: 'artefact',
};

/** Units of columns whose names do not end in one. */
const OWN_UNITS: Record<string, string | null> = {
  price_per_kg: null,
  px_per_mm: null,
  db_a: 'dB(A)',
};

/** A column's name in words, and its unit where it has one. */
export function columnLabel(column: string): { label: string; unit: string | null } {
  const found = UNITS.find(([ending]) => column.endsWith(ending));
  const stem = found ? column.slice(0, -found[0].length) : column;
  return {
    // What names another row, or says when, is called by what it is: `print`, `started`.
    label: NAMES[column] ?? stem.replace(/_(?:id|at)$/, '').replaceAll('_', ' '),
    unit: column in OWN_UNITS ? (OWN_UNITS[column] ?? null) : (found?.[1] ?? null),
  };
}

/** A column's or setting's name with its unit: `nozzle temp (°C)`. */
export function columnWords(column: string): string {
  const { label, unit } = columnLabel(column);
  return unit === null ? label : `${label} (${unit})`;
}

/** A word of a catalogue as people write it: `loose-strands` is `loose strands`, `under-extruded` stays. */
export const inWords = (key: string): string =>
  key === 'corexy' ? 'CoreXY' : key.replace(/-(?!extruded)/g, ' ');

/** A count with its noun: `1 print`, `3 prints`. */
export const counted = (count: number, one: string, many = `${one}s`): string =>
  `${count} ${count === 1 ? one : many}`;
