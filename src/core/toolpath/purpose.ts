import {
  commonPart,
  normaliseSetting,
  statedPurpose,
  type Settings,
  type Study,
  ALLOWANCE,
} from '../model/study';
import type { MachineRecord } from './machine';

/** What a sliced file may be for. */
export interface Purpose {
  contender_id: string | null;
  artefact_id: string | null;
}

/** The tables that a file can be matched to. */
export type LineUp = Pick<
  Study['tables'],
  'contenders' | 'machines' | 'profiles' | 'profile_settings' | 'artefacts'
>;

const tokensOf = (text: string): Set<string> =>
  new Set(text.toLowerCase().match(/[a-z]+|\d+/g) ?? []);

/** What a file says of itself: its text, and the words of it. */
interface Said {
  text: string;
  words: ReadonlySet<string>;
}

/** A name that is there in one piece is a little less sure than all its words. */
const IN_ONE_PIECE = 0.9;

/** How much of a name a file says: the share of its words, or of it in one piece. */
function overlap(name: string, { text, words }: Said): number {
  const own = [...tokensOf(name)];
  if (own.length === 0) return 0;
  const share = own.filter((token) => words.has(token)).length / own.length;
  return Math.max(share, IN_ONE_PIECE * commonPart(name, text));
}

/** The best of several that is better than every other one, if it is any good. */
function clearWinner<Item>(items: readonly Item[], score: (item: Item) => number): Item | null {
  const ranked = items.map((item) => ({ item, points: score(item) }));
  ranked.sort((a, b) => b.points - a.points);
  const [first, second] = ranked;
  if (!first || first.points <= 0.5) return null;
  return second && second.points >= first.points - ALLOWANCE ? null : first.item;
}

/**
 * Guesses what a sliced file is for, by its name, by what it says of machine and profile, and by how
 * its settings agree with those of the profiles. A person confirms it.
 */
export function guessPurpose(file: string, settings: Settings, lineUp: LineUp): Purpose {
  const text = [
    file,
    ...(['machine', 'profile', 'part'] as const).map((what) => statedPurpose(settings, what)),
  ]
    .join(' ')
    .replace(/\.(?:gcode|gco|g|nc|gz|3mf)\b/gi, '');
  const said: Said = { text, words: tokensOf(text) };
  const artefact = clearWinner(lineUp.artefacts, (row) =>
    Math.max(overlap(row.name, said), overlap(row.artefact_id, said)),
  );
  const machines = new Map(lineUp.machines.map((row) => [row.machine_id, row]));
  const profiles = new Map(lineUp.profiles.map((row) => [row.profile_id, row]));
  const contender = clearWinner(lineUp.contenders, (row) => {
    const machine = machines.get(row.machine_id);
    const profile = profiles.get(row.profile_id);
    const named =
      overlap(row.contender_id, said) === 1
        ? 2
        : overlap(machine?.name ?? '', said) +
          (profile && said.words.has(profile.kind) ? 0.5 : 0) +
          0.5 * overlap(profile?.name ?? '', said);
    return named + agreement(row.profile_id, settings, lineUp);
  });
  return {
    contender_id: contender?.contender_id ?? null,
    artefact_id: artefact?.artefact_id ?? null,
  };
}

/** Share of a profile's settings that a file states alike; 0 where they have none in common. */
function agreement(profileId: string, settings: Settings, lineUp: LineUp): number {
  let alike = 0;
  let common = 0;
  for (const row of lineUp.profile_settings) {
    if (row.profile_id !== profileId) continue;
    const [key, value] = normaliseSetting(row.key, row.value);
    const stated = settings[key];
    if (stated === undefined) continue;
    common += 1;
    if (stated === value) alike += 1;
  }
  return common === 0 ? 0 : alike / common;
}

/** What is known of the machine of a contender. */
export function machineOf(contender: string | null, lineUp: LineUp): MachineRecord {
  const id = lineUp.contenders.find((row) => row.contender_id === contender)?.machine_id;
  const machine = lineUp.machines.find((row) => row.machine_id === id);
  const known = (value: number | null | undefined) => (value != null && value > 0 ? value : null);
  const claimed = known(machine?.claimed_speed_mm_s);
  const flow = known(machine?.max_flow_mm3_s);
  return {
    ...(claimed !== null && { claimed_speed_mm_s: claimed }),
    ...(flow !== null && { max_flow_mm3_s: flow }),
  };
}
