import gamma from '@stdlib/random-base-gamma';
import twister from '@stdlib/random-base-mt19937';
import minstd from '@stdlib/random-base-minstd-shuffle';

/** Draws that are the same for the same seed. */
export interface Draws {
  /** A number from 0 up to, not with, 1. */
  uniform(): number;
  /** A whole number from 0 up to, not with, `count`. */
  below(count: number): number;
}

const MODULUS = 2_147_483_647;

/** A seed that every generator takes. */
const seedWithin = (seed: number): number => 1 + (Math.abs(Math.trunc(seed)) % (MODULUS - 2));

/**
 * Seeded draws of whole numbers from 0 up to, not with, 2^bits (at most 31); all as likely.
 *
 * @see Matsumoto and Nishimura, Mersenne Twister, 1998
 * @example bitDraws(1, 7)() === bitDraws(1, 7)() // true
 */
export function bitDraws(bits: number, seed: number): () => number {
  const draw = twister.factory({ seed: seedWithin(seed) });
  const shift = 32 - bits;
  return () => draw() >>> shift;
}

/**
 * Seeded draws of the gamma distribution of a shape over 0, at rate 1.
 *
 * @see Marsaglia and Tsang, A simple method for generating gamma variables, 2000
 * @example gammaDraws(2, 7)() === gammaDraws(2, 7)() // true
 */
export const gammaDraws = (shape: number, seed: number): (() => number) =>
  gamma.factory(shape, 1, { seed: seedWithin(seed) });

/**
 * Seeded draws by the minimal standard generator with a shuffled table.
 *
 * @see Park and Miller, 1988; Bays and Durham, 1976
 * @example seededDraws(7).below(1) // 0
 */
export function seededDraws(seed: number): Draws {
  const draw = minstd.factory({ seed: seedWithin(seed) });
  const uniform = () => (draw() - 1) / (MODULUS - 1);
  return { uniform, below: (count) => Math.min(count - 1, Math.floor(uniform() * count)) };
}

/**
 * A list in an order that the draws decide, each order as likely (Fisher and Yates).
 *
 * @example shuffled(['a', 'b'], { uniform: () => 0, below: () => 0 }) // ['b', 'a']
 */
export function shuffled<Item>(items: readonly Item[], draws: Draws): Item[] {
  const list = [...items];
  for (let last = list.length - 1; last > 0; last -= 1) {
    const other = draws.below(last + 1);
    [list[last], list[other]] = [list[other]!, list[last]!];
  }
  return list;
}
