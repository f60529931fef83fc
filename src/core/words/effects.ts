import type { Effect, Effects } from '../effects';

/** What is analysed: its name, and how a gain of it is told. */
const RESPONSES = {
  ln_mae: { what: 'accuracy', gain: (gain: number) => factor(gain, 'error') },
  surface_index: {
    what: 'surface',
    gain: (gain: number) => `${Math.abs(gain).toFixed(0)} points ${gain < 0 ? 'fewer' : 'more'}`,
  },
  ln_print_s: { what: 'time', gain: (gain: number) => factor(gain, 'time') },
} as const;

export type EffectsResponse = keyof typeof RESPONSES;

/** A gain of logarithms: how much less (or more) of something there is. */
const factor = (gain: number, what: string): string => {
  const percent = 100 * (1 - Math.exp(-gain));
  return `${Math.abs(percent).toFixed(0)} % ${percent < 0 ? 'more' : 'less'} ${what}`;
};

const isThere = ({ p }: Pick<Effect, 'p'>, alpha: number): boolean => p !== null && p < alpha;

/** How much of what varies a term explains, in words. */
const share = ({ partial_omega2: size }: Effect): string =>
  size === null ? 'an unknown share' : `${(100 * size).toFixed(0)} %`;

/**
 * Whether it is the machine or the profile, in sentences: what each explains, whom tuning helps, and
 * what the design cannot tell.
 *
 * @param alpha a term counts as there where its p is below this
 */
export function saidEffects(
  response: EffectsResponse,
  effects: Effects,
  nameOf: (machine: string) => string,
  alpha: number,
): string[] {
  const { what, gain: sayGain } = RESPONSES[response];
  const { terms } = effects;
  const machines = Object.keys(effects.gain);
  const said: string[] = [];
  if (terms.machine.p === null) {
    said.push(
      machines.length < 2
        ? `Whether it is the machine or the profile cannot be told of ${what}: fewer than two machines were printed with both.`
        : `Whether it is the machine or the profile cannot be told of ${what}: prints were not repeated, or do not scatter.`,
    );
  } else {
    const [machine, profile] = [isThere(terms.machine, alpha), isThere(terms.profile, alpha)];
    if (isThere(terms['machine:profile'], alpha)) {
      said.push(
        `In ${what}, what tuning does depends on the machine: that explains ${share(terms['machine:profile'])} of what is left once machines and profiles are counted by themselves.`,
      );
    } else if (machine && profile) {
      said.push(
        `In ${what}, the machine explains ${share(terms.machine)} and the profile ${share(terms.profile)}, each with the other set aside; that tuning does more on one machine than on another is not shown.`,
      );
    } else if (machine) {
      said.push(`In ${what} it is the machine: it explains ${share(terms.machine)}; that the profile matters is not shown.`); // prettier-ignore
    } else if (profile) {
      said.push(`In ${what} it is the profile: it explains ${share(terms.profile)}; that the machines differ is not shown.`); // prettier-ignore
    } else {
      said.push(`In ${what} neither the machine nor the profile is shown to matter.`);
    }
  }
  const gains = machines
    .map((id) => ({ id, ...effects.gain[id] }))
    .sort((a, b) => (b.estimate ?? -Infinity) - (a.estimate ?? -Infinity));
  for (const { id, estimate, low, high } of gains) {
    if (estimate == null) continue;
    if (low == null || high == null) {
      said.push(`Tuning the ${nameOf(id)} gave ${sayGain(estimate)}, on one print a side: that shows, it does not decide.`); // prettier-ignore
    } else if (low > 0 || high < 0) {
      const how = low > 0 ? `helps the ${nameOf(id)}` : `makes the ${nameOf(id)} worse`;
      const isTrivial = effects.verdicts[id]?.verdict === 'trivial';
      const tail = isTrivial ? ', less than matters here' : '';
      said.push(
        `Tuning ${how}: ${sayGain(estimate)} (between ${range(sayGain, low, high)})${tail}.`,
      );
    } else {
      said.push(`That tuning helps the ${nameOf(id)} is not shown: between ${range(sayGain, low, high)}.`); // prettier-ignore
    }
  }
  if (machines.length >= 2) said.push('This speaks of these machines only.');
  return said;
}

const range = (say: (gain: number) => string, low: number, high: number): string =>
  `${say(low)} and ${say(high)}`;
