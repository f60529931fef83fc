import type { Effect, Effects } from '../../statistics/effects';

/** What is analysed: its name, and how a gain of it is told. */
const RESPONSES = {
  ln_mae: { what: 'accuracy', gain: (gain: number) => factor(gain, 'error') },
  surface_index: {
    what: 'surface',
    gain: (gain: number) => `${Math.abs(gain).toFixed(0)} points ${gain < 0 ? 'fewer' : 'more'}`,
  },
  ln_print_s: { what: 'time', gain: (gain: number) => factor(gain, 'time') },
} as const;

/** The factor that machines are crossed with, as words of a sentence. */
const BY: Readonly<Record<Effects['factor'], string>> = {
  kind: 'the profile',
  slicer: 'the slicing program',
  origin: 'where the profile comes from',
  material: 'the material',
};

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
export function describeEffects(
  response: EffectsResponse,
  effects: Effects,
  nameOf: (contender: string) => string,
  alpha: number,
): string[] {
  const { what, gain: describeGain } = RESPONSES[response];
  const { terms, gains, factor } = effects;
  const by = BY[factor];
  const said: string[] = [];
  if (terms === null) {
    said.push(
      `For ${what} the effects of machine and ${by} cannot be separated: ` +
        'fewer than two machines were printed with each.',
    );
  } else if (terms.machine.p === null) {
    said.push(
      `For ${what} the effects of machine and ${by} cannot be separated: prints were not repeated, or do not vary.`,
    );
  } else {
    const [machine, profile] = [isThere(terms.machine, alpha), isThere(terms.profile, alpha)];
    if (isThere(terms['machine:profile'], alpha)) {
      said.push(
        `In ${what}, what ${by} does depends on the machine: that explains ` +
          `${share(terms['machine:profile'])} of the variation left after each is counted alone.`,
      );
    } else if (machine && profile) {
      said.push(
        `In ${what}, the machine explains ${share(terms.machine)} and ${by} ` +
          `${share(terms.profile)}, each with the other set aside. It is not shown that ${by} ` +
          'does more on one machine than on another.',
      );
    } else if (machine) {
      said.push(
        `In ${what} the machine explains ${share(terms.machine)}. It is not shown that ${by} matters.`,
      );
    } else if (profile) {
      said.push(
        `In ${what} ${by} explains ${share(terms.profile)}. It is not shown that the machines differ.`,
      );
    } else {
      said.push(`In ${what} neither the machine nor ${by} is shown to matter.`);
    }
  }
  const ordered = Object.entries(gains ?? {})
    .map(([id, gain]) => ({ id, ...gain }))
    .sort((a, b) => (b.estimate ?? -Infinity) - (a.estimate ?? -Infinity));
  for (const { id, estimate, low, high } of ordered) {
    if (estimate == null) continue;
    if (low == null || high == null) {
      said.push(
        `${nameOf(id)} gained ${describeGain(estimate)} on one print a side: more prints are needed to decide.`,
      );
    } else if (low > 0 || high < 0) {
      const how = low > 0 ? 'better' : 'worse';
      const isTrivial = effects.verdicts[id]?.verdict === 'trivial';
      const tail = isTrivial ? ', less than matters here' : '';
      said.push(
        `${nameOf(id)} is ${how} than its stock: ${describeGain(estimate)} ` +
          `(between ${range(describeGain, low, high)})${tail}.`,
      );
    } else {
      said.push(
        `That ${nameOf(id)} is better than its stock is not shown: between ${range(describeGain, low, high)}.`,
      );
    }
  }
  if (terms !== null) said.push('This speaks of these machines only.');
  return said;
}

const range = (say: (gain: number) => string, low: number, high: number): string =>
  `${say(low)} and ${say(high)}`;
