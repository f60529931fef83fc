import { tQuantile } from '../stats';

/**
 * What can be said of a contender against the reference: `better`, `worse` (different and it
 * matters), `trivial` (different, and too little to matter), `indistinguishable` (equivalent),
 * `unsettled` (more prints are needed), `one_print` (no scatter to judge by).
 */
export type Verdict =
  'better' | 'worse' | 'trivial' | 'indistinguishable' | 'unsettled' | 'one_print';

/** Largest number of prints that is searched for. */
const MOST_PRINTS = 1e9;

export interface PrintsNeeded {
  /** s² of both sides, pooled. */
  variance: number;
  artefacts: number;
  /** The smallest difference of interest. */
  delta: number;
  /** The error probability of one comparison. */
  alpha: number;
  /** The fewest prints that a side has on an artefact now. */
  fewestPrints: number;
}

/**
 * The smallest number of prints per contender and artefact with which a difference of `delta`
 * would be found with 80 % power and equivalence shown with 80 % power, and more than there are.
 */
export function printsNeeded({
  variance,
  artefacts,
  delta,
  alpha,
  fewestPrints,
}: PrintsNeeded): number | null {
  const isEnough = (n: number): boolean => {
    const df = 2 * artefacts * (n - 1);
    const unit = (2 * variance) / (artefacts * delta ** 2);
    const difference = (tQuantile(1 - alpha / 2, df) + tQuantile(0.8, df)) ** 2;
    const equivalence = (tQuantile(1 - alpha, df) + tQuantile(0.9, df)) ** 2;
    return n >= unit * difference && n >= unit * equivalence;
  };
  let high = 2;
  while (!isEnough(high)) {
    high *= 2;
    if (high > MOST_PRINTS) return null;
  }
  let low = Math.max(1, high / 2);
  if (high === 2) low = 1;
  while (high - low > 1) {
    const middle = Math.floor((low + high) / 2);
    if (middle >= 2 && isEnough(middle)) high = middle;
    else low = middle;
  }
  return Math.max(high, fewestPrints + 1);
}
