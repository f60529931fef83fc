/** Our names of settings, and what sliced files call them (letters and digits only, lower case). */
const NAMES: Readonly<Record<string, readonly string[]>> = {
  layer_height_mm: ['layerheight', 'layerheightmm', 'turnheight', 'strakeheight'],
  first_layer_height_mm: [
    'firstlayerheight',
    'initiallayerheight',
    'initiallayerprintheight',
    'firstlayerheightmm',
    'groundturnheight',
    'garboardheight',
  ],
  line_width_mm: ['linewidth', 'extrusionwidth', 'linewidthmm', 'cutwidth', 'strakewidth'],
  walls: ['walls', 'perimeters', 'wallloops', 'wallcount', 'walllinecount', 'rinds', 'hullplanks'],
  top_layers: ['toplayers', 'topsolidlayers', 'topshelllayers', 'lidturns', 'deckstrakes'],
  bottom_layers: [
    'bottomlayers',
    'bottomsolidlayers',
    'bottomshelllayers',
    'floorturns',
    'keelstrakes',
  ],
  infill_share: [
    'infillshare',
    'infilldensity',
    'filldensity',
    'sparseinfilldensity',
    'infillpercentage',
    'coreshare',
    'latticeshare',
  ],
  infill_pattern: [
    'infillpattern',
    'fillpattern',
    'sparseinfillpattern',
    'coreweave',
    'latticeform',
  ],
  support: [
    'support',
    'supports',
    'supportmaterial',
    'enablesupport',
    'supportenable',
    'props',
    'shores',
  ],
  adhesion: [
    'adhesion',
    'adhesiontype',
    'brimtype',
    'bedadhesion',
    'plateadhesion',
    'hem',
    'fender',
  ],
  nozzle_temp_c: [
    'nozzletempc',
    'nozzletemp',
    'temperature',
    'nozzletemperature',
    'printtemperature',
    'meltheat',
    'potheat',
  ],
  bed_temp_c: [
    'bedtempc',
    'bedtemp',
    'bedtemperature',
    'platetemperature',
    'plateheat',
    'slipheat',
  ],
  fan_share: ['fanshare', 'fanspeed', 'maxfanspeed', 'fanmaxspeed'],
  retract_mm: [
    'retractmm',
    'retractlength',
    'retractionlength',
    'retractionamount',
    'pullback',
    'haulback',
  ],
  speed_outer_wall_mm_s: [
    'speedouterwallmms',
    'outerwallspeed',
    'externalperimeterspeed',
    'speedwallouter',
    'rindpace',
    'hullrate',
  ],
  speed_inner_wall_mm_s: [
    'speedinnerwallmms',
    'innerwallspeed',
    'perimeterspeed',
    'speedwallinner',
    'innerrindpace',
    'innerhullrate',
  ],
  speed_infill_mm_s: [
    'speedinfillmms',
    'speedsparsemms',
    'sparseinfillspeed',
    'infillspeed',
    'speedinfill',
    'corepace',
    'latticerate',
  ],
  speed_solid_mm_s: [
    'speedsolidmms',
    'solidinfillspeed',
    'internalsolidinfillspeed',
    'solidpace',
    'ballastrate',
  ],
  speed_top_mm_s: ['speedtopmms', 'topsolidinfillspeed', 'topsurfacespeed', 'speedtopbottom'],
  speed_bridge_mm_s: ['speedbridgemms', 'bridgespeed'],
  speed_travel_mm_s: ['speedtravelmms', 'travelspeed', 'speedtravel', 'emptypace', 'driftrate'],
  speed_first_layer_mm_s: [
    'speedfirstlayermms',
    'firstlayerspeed',
    'initiallayerspeed',
    'groundpace',
    'garboardrate',
  ],
  accel_print_mm_s2: [
    'accelprintmms2',
    'defaultacceleration',
    'accelerationprint',
    'push',
    'rategain',
  ],
  flow_factor: [
    'flowfactor',
    'extrusionmultiplier',
    'flowratio',
    'filamentflowratio',
    'feedtrim',
    'feedshare',
  ],
  max_flow_mm3_s: ['maxflowmm3s', 'maxvolumetricspeed', 'filamentmaxvolumetricspeed'],
  nozzle_mm: [
    'nozzlemm',
    'nozzlediameter',
    'nozzlesize',
    'machinenozzlesize',
    'tipwidth',
    'spoutwidth',
  ],
  filament_diameter_mm: [
    'filamentdiametermm',
    'filamentdiameter',
    'materialdiameter',
    'cordwidth',
    'linewidthacross',
  ],
  filament_density_g_cm3: [
    'filamentdensitygcm3',
    'filamentdensity',
    'materialdensity',
    'corddensity',
    'linedensity',
  ],
};

/** What sliced files call the machine, profile, part and material that they are for. */
const PURPOSE = {
  machine: [
    'machine',
    'machinename',
    'printer',
    'printername',
    'printermodel',
    'formachine',
    'yard',
  ],
  profile: ['profile', 'profilename', 'printprofile', 'preset', 'forprofile', 'plan'],
  part: ['object', 'objectname', 'part', 'model', 'modelname', 'piece', 'vessel'],
  material: ['material', 'materialtype', 'filamenttype', 'filament'],
} as const;

const LONGEST_PURPOSE = 200;

/** The machine, profile, part or material that a sliced file says it is for; empty where it does not. */
export function statedPurpose(settings: Settings, what: keyof typeof PURPOSE): string {
  const names: readonly string[] = PURPOSE[what];
  const found = Object.entries(settings).find(([key]) => names.includes(plainName(key)));
  return String(found?.[1] ?? '')
    .trim()
    .slice(0, LONGEST_PURPOSE);
}

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

/** The shortest part that two names have in common and that is not chance. */
const SHORTEST_PART = 4;

/**
 * How much of a name another text has in one piece: the longest common part, as a share of the name, 0 to 1.
 * A part of fewer than four letters counts as nothing, and so does a text that lacks one of the name's
 * numbers: another number is another machine.
 *
 * @example commonPart('Stair block', 'stairblock_final') // 1
 */
export function commonPart(name: string, text: string): number {
  const numbers = new Set(text.match(/\d+/g) ?? []);
  if ((name.match(/\d+/g) ?? []).some((number) => !numbers.has(number))) return 0;
  const [own, other] = [plainName(name), plainName(text)];
  let longest = 0;
  // Lengths of the common parts that end at each letter of the other text, for the letter of the name before.
  let before = new Uint16Array(other.length + 1);
  for (const letter of own) {
    const ends = new Uint16Array(other.length + 1);
    for (let at = 0; at < other.length; at += 1) {
      if (other[at] !== letter) continue;
      const length = (before[at] ?? 0) + 1;
      ends[at + 1] = length;
      longest = Math.max(longest, length);
    }
    before = ends;
  }
  return longest < SHORTEST_PART ? 0 : longest / own.length;
}

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
