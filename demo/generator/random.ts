import minstd from '@stdlib/random-base-minstd-shuffle';
import normal from '@stdlib/random-base-normal';

/** Seeded draws, so that the demo is the same wherever it is made. */
export interface Draws {
  /** Normal with mean 0. */
  noise(sd: number): number;
  /** Uniform in [from, to). */
  between(from: number, to: number): number;
  chance(share: number): boolean;
}

export function drawsFrom(seed: number): Draws {
  const prng = minstd.factory({ seed });
  const uniform = () => (prng() - 1) / 2_147_483_646;
  const standard = normal.factory(0, 1, { prng: uniform as never });
  return {
    noise: (sd) => sd * standard(),
    between: (from, to) => from + (to - from) * uniform(),
    chance: (share) => uniform() < share,
  };
}

export const round = (value: number, digits: number): number => Number(value.toFixed(digits));
