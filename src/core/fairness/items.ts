import { isProcessSetting, PART_SETTINGS, type Intent } from '../study';

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
): Roles => ({
  machines,
  'same-settings': sameSettings,
  tuning,
  'before-after': beforeAfter,
  sweep: beforeAfter,
});

const HELD = roles('held', 'held', 'held');
const NOTED = roles('noted', 'noted', 'noted', 'noted');
const PROCESS = roles('wanted', 'held', 'wanted');

/** What two contenders can differ in besides their settings, and what that means by the intent. */
const CIRCUMSTANCES: Readonly<Record<string, Roles>> = {
  material_type: HELD,
  material_maker: HELD,
  material_lot: HELD,
  material_colour: NOTED,
  nozzle_mm: HELD,
  plate: roles('noted', 'noted', 'held'),
  firmware: roles('noted', 'noted', 'held'),
  copies: roles('noted', 'held', 'held'),
  positions: roles('noted', 'held', 'held'),
  operator: NOTED,
  inspector: NOTED,
  instrument: NOTED,
  ambient_c: NOTED,
};

export const CIRCUMSTANCE_KEYS: readonly string[] = Object.keys(CIRCUMSTANCES);

/** Words by which a change of a before-after study names the item that it changes. */
const CHANGED: Readonly<Record<string, RegExp>> = {
  plate: /\bplate\b/i,
  firmware: /\bfirmware\b/i,
};

const PART_KEYS = new Set<string>(PART_SETTINGS);

/**
 * The role of an item in a comparison.
 *
 * @param change what was fitted or changed between the two, in a person's words
 * @param swept the setting that a sweep takes in steps
 */
export function roleOf(key: string, judged: Judged, change: string, swept?: string): Role {
  if (judged === 'sweep' && key === swept) return 'wanted';
  if (key === 'mesh' || PART_KEYS.has(key)) return 'held';
  if (isProcessSetting(key)) return PROCESS[judged];
  if (judged === 'before-after' && CHANGED[key]?.test(change)) return 'wanted';
  return CIRCUMSTANCES[key]?.[judged] ?? 'noted';
}
