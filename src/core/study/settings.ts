/** Our names of settings, and what sliced files call them (letters and digits only, lower case). */
const NAMES: Readonly<Record<string, readonly string[]>> = {
  layer_height_mm: ['layerheight', 'layerheightmm'],
  first_layer_height_mm: [
    'firstlayerheight',
    'initiallayerheight',
    'initiallayerprintheight',
    'firstlayerheightmm',
  ],
  line_width_mm: ['linewidth', 'extrusionwidth', 'linewidthmm'],
  walls: ['walls', 'perimeters', 'wallloops', 'wallcount', 'walllinecount'],
  top_layers: ['toplayers', 'topsolidlayers', 'topshelllayers'],
  bottom_layers: ['bottomlayers', 'bottomsolidlayers', 'bottomshelllayers'],
  infill_share: [
    'infillshare',
    'infilldensity',
    'filldensity',
    'sparseinfilldensity',
    'infillpercentage',
  ],
  infill_pattern: ['infillpattern', 'fillpattern', 'sparseinfillpattern'],
  support: ['support', 'supports', 'supportmaterial', 'enablesupport', 'supportenable'],
  adhesion: ['adhesion', 'adhesiontype', 'brimtype', 'bedadhesion', 'plateadhesion'],
  nozzle_temp_c: [
    'nozzletempc',
    'nozzletemp',
    'temperature',
    'nozzletemperature',
    'printtemperature',
  ],
  bed_temp_c: ['bedtempc', 'bedtemp', 'bedtemperature', 'platetemperature'],
  fan_share: ['fanshare', 'fanspeed', 'maxfanspeed', 'fanmaxspeed'],
  retract_mm: ['retractmm', 'retractlength', 'retractionlength', 'retractionamount'],
  speed_outer_wall_mm_s: [
    'speedouterwallmms',
    'outerwallspeed',
    'externalperimeterspeed',
    'speedwallouter',
  ],
  speed_inner_wall_mm_s: [
    'speedinnerwallmms',
    'innerwallspeed',
    'perimeterspeed',
    'speedwallinner',
  ],
  speed_infill_mm_s: [
    'speedinfillmms',
    'speedsparsemms',
    'sparseinfillspeed',
    'infillspeed',
    'speedinfill',
  ],
  speed_solid_mm_s: ['speedsolidmms', 'solidinfillspeed', 'internalsolidinfillspeed'],
  speed_top_mm_s: ['speedtopmms', 'topsolidinfillspeed', 'topsurfacespeed', 'speedtopbottom'],
  speed_bridge_mm_s: ['speedbridgemms', 'bridgespeed'],
  speed_travel_mm_s: ['speedtravelmms', 'travelspeed', 'speedtravel'],
  speed_first_layer_mm_s: ['speedfirstlayermms', 'firstlayerspeed', 'initiallayerspeed'],
  accel_print_mm_s2: ['accelprintmms2', 'defaultacceleration', 'accelerationprint'],
  flow_factor: ['flowfactor', 'extrusionmultiplier', 'flowratio', 'filamentflowratio'],
  max_flow_mm3_s: ['maxflowmm3s', 'maxvolumetricspeed', 'filamentmaxvolumetricspeed'],
  nozzle_mm: ['nozzlemm', 'nozzlediameter', 'nozzlesize', 'machinenozzlesize'],
  filament_diameter_mm: ['filamentdiametermm', 'filamentdiameter', 'materialdiameter'],
  filament_density_g_cm3: ['filamentdensitygcm3', 'filamentdensity', 'materialdensity'],
};

/** What makes the part: where it differs, two prints of an artefact are not the same part. */
export const PART_SETTINGS = [
  'layer_height_mm',
  'first_layer_height_mm',
  'line_width_mm',
  'walls',
  'top_layers',
  'bottom_layers',
  'infill_share',
  'infill_pattern',
  'support',
  'adhesion',
] as const;

const PROCESS = /^(?:speed_|accel_|retract_|fan_|flow_|max_flow_|nozzle_temp|bed_temp)/;

/** Whether a setting says how the part is made: speeds, accelerations, temperatures, fan, flow. */
export const isProcessSetting = (key: string): boolean => PROCESS.test(key);

const OURS = new Map(
  Object.entries(NAMES).flatMap(([ours, theirs]) => theirs.map((name) => [name, ours] as const)),
);

/** Settings that are shares: per cent becomes 0…1. */
const SHARES = new Set(['infill_share', 'fan_share']);

export type SettingValue = number | string;

/** Settings by their normalised keys. */
export type Settings = Readonly<Record<string, SettingValue>>;

const NUMBER = /^[-+]?(?:\d+\.?\d*|\.\d+)$/;

/** Whether a key is one of our own names of settings, and not one kept as it was written. */
export const isKnownSetting = (key: string): boolean => Object.hasOwn(NAMES, key);

/** Our own names of settings, in the order in which they are shown. */
export const settingNames = (): string[] => Object.keys(NAMES);

/** A name without blanks, dashes, underscores and case. */
export const plainName = (text: string): string => text.toLowerCase().replace(/[^a-z0-9]/g, '');

/** The key and value of a setting as we name and write it; an unknown key stays as written. */
export function normaliseSetting(key: string, text: string): [string, SettingValue] {
  const ours = OURS.get(plainName(key));
  const value = text.trim();
  if (ours === undefined) return [key, NUMBER.test(value) ? Number(value) : value];
  const first = /^[^,;]*/.exec(value)?.[0].trim() ?? value;
  const isPercent = first.endsWith('%');
  const bare = isPercent ? first.slice(0, -1).trim() : first.replace(/\s*(?:mm|mm\/s)$/, '');
  if (!NUMBER.test(bare)) return [ours, value];
  const number = Number(bare);
  if (SHARES.has(ours)) return [ours, isPercent || number > 1 ? number / 100 : number];
  return [ours, isPercent ? value : number];
}
