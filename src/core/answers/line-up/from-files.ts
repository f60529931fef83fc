import {
  commonPart,
  isKnownSetting,
  plainName,
  statedPurpose,
  type Settings,
} from '../../model/study/settings';

/** What a dropped file says of itself. */
export interface DroppedFile {
  /** Its name on the disk. */
  name: string;
  settings: Settings;
}

/** What a dropped file is proposed to be, to be confirmed by a person; empty where it does not say. */
export interface ProposedFile {
  machine: string;
  profile: string;
  kind: 'stock' | 'tuned';
  part: string;
  /** Type of material; null where it does not say. */
  material: string | null;
}

const STOCK = /\b(?:shipped|stock|standard|default|maker)/i;

/** A key or file's name as people write it: `stair-block` is `Stair block`. */
const asName = (text: string): string => {
  const plain = text
    .replace(/\.(?:stl|3mf|obj|gcode|gco|g|gz)\b/gi, '')
    .replace(/[-_]+/g, ' ')
    .trim();
  return plain.charAt(0).toUpperCase() + plain.slice(1);
};

/** The name among some that is the same but for blanks, dashes and case; else the name itself. */
const asKnown = (name: string, known: readonly string[]): string =>
  known.find((one) => plainName(one) === plainName(name)) ?? name;

/** So much of a name in one piece is taken for the name. */
const ENOUGH = 0.75;

/** The name that a text has most of in one piece, the longer of two alike; undefined where it has none. */
function mostAlike(names: readonly string[], text: string): string | undefined {
  const [best] = names
    .map((name) => ({ name, share: commonPart(name, text) }))
    .filter(({ share }) => share >= ENOUGH)
    .sort((a, b) => b.share - a.share || b.name.length - a.name.length);
  return best?.name;
}

/**
 * Proposes machine, profile, part and material of dropped files from what they say; a part that the file
 * does not name is looked for in its own name.
 *
 * @param known names of machines and parts that the study or the workshop has
 */
export function proposeFromFiles(
  files: readonly DroppedFile[],
  known: { machines: readonly string[]; parts: readonly string[] },
): ProposedFile[] {
  return files.map(({ name, settings }) => {
    const named = mostAlike(known.machines, name);
    const machine = asKnown(statedPurpose(settings, 'machine') || (named ?? ''), known.machines);
    const object = statedPurpose(settings, 'part');
    const part = mostAlike(known.parts, name);
    const profile = statedPurpose(settings, 'profile');
    return {
      machine,
      profile: profile || (machine === '' ? '' : `${machine}, as shipped`),
      kind: profile === '' || STOCK.test(profile) ? 'stock' : 'tuned',
      part: object === '' ? (part ?? asName(name)) : asKnown(asName(object), known.parts),
      material: statedPurpose(settings, 'material').toUpperCase() || null,
    };
  });
}

/** The settings of a file under our own names, as texts: what its profile holds. */
export const profileSettings = (settings: Settings): Record<string, string> =>
  Object.fromEntries(
    Object.entries(settings).flatMap(([key, value]) =>
      isKnownSetting(key) ? [[key, String(value)]] : [],
    ),
  );
