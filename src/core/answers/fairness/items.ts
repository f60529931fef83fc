import { isProcessSetting, PART_SETTINGS, type Factor, type Intent } from '../../model/study';

/** What a difference in an item means: it is the treatment, it must be equal, it is only noted. */
export type Role = 'wanted' | 'held' | 'noted';

/** How a pair is judged; of a crossed study, each pair as one of the others. */
export type Judged = Exclude<Intent, 'crossed'>;

type Roles = Readonly<Record<Judged, Role>>;

const roles = (
  machines: Role,
  sameSettings: Role,
  tuning: Role,
  beforeAfter: Role = 'held',
  materials: Role = beforeAfter,
): Roles => ({
  machines,
  'same-settings': sameSettings,
  tuning,
  'before-after': beforeAfter,
  sweep: beforeAfter,
  materials,
});

const HELD = roles('held', 'held', 'held');
const NOTED = roles('noted', 'noted', 'noted', 'noted');
const MATERIAL = roles('held', 'held', 'held', 'held', 'wanted');
const PROCESS = roles('wanted', 'held', 'wanted', 'held', 'wanted');
/** Process settings that a material does not ask for. */
const MOTION = /^(?:speed_|accel_)/;

/** What two contenders can differ in besides their settings, and what that means by the intent. */
const CIRCUMSTANCES: Readonly<Record<string, Roles>> = {
  material_type: MATERIAL,
  material_maker: MATERIAL,
  material_lot: MATERIAL,
  material_colour: NOTED,
  nozzle_mm: HELD,
  plate: roles('noted', 'noted', 'held', 'held', 'noted'),
  firmware: roles('noted', 'noted', 'held'),
  copies: roles('noted', 'held', 'held'),
  positions: roles('noted', 'held', 'held'),
  operator: NOTED,
  inspector: NOTED,
  instrument: NOTED,
  ambient_c: NOTED,
  slicer: roles('noted', 'held', 'held'),
  slicer_version: roles('noted', 'held', 'held'),
  origin: roles('noted', 'noted', 'wanted'),
  speed_mode: HELD,
  orientation: roles('noted', 'held', 'held'),
  plate_aid: roles('noted', 'noted', 'held', 'held', 'noted'),
};

export const CIRCUMSTANCE_KEYS: readonly string[] = Object.keys(CIRCUMSTANCES);

/** Words by which a change of a before-after study names the item that it changes. */
const CHANGED: Readonly<Record<string, RegExp>> = {
  plate: /\bplate\b/i,
  firmware: /\bfirmware\b/i,
};

const PART_KEYS = new Set<string>(PART_SETTINGS);

/** What a crossed study varies besides machines, as items. */
const FACTOR_ITEMS: Readonly<Partial<Record<Factor, readonly string[]>>> = {
  slicer: ['slicer', 'slicer_version'],
  origin: ['origin'],
};

/** By what a comparison is judged. */
export interface Ways {
  judged: Judged;
  /** What was fitted or changed between the two, in a person's words. */
  change?: string;
  /** The setting that a sweep takes in steps. */
  swept?: string | undefined;
  /** What a crossed study crosses machines with. */
  factor?: Factor | null;
}

/** The role of an item in a comparison. */
export function roleOf(key: string, { judged, change = '', swept, factor = null }: Ways): Role {
  if (judged === 'sweep' && key === swept) return 'wanted';
  if (key === 'mesh' || PART_KEYS.has(key)) return 'held';
  const varied = factor === null ? undefined : FACTOR_ITEMS[factor];
  if (varied?.includes(key)) return 'wanted';
  if (!(key in CIRCUMSTANCES) && isProcessSetting(key)) {
    if (varied) return 'wanted';
    return judged === 'materials' && MOTION.test(key) ? 'held' : PROCESS[judged];
  }
  if (judged === 'before-after' && CHANGED[key]?.test(change)) return 'wanted';
  return CIRCUMSTANCES[key]?.[judged] ?? 'noted';
}
