import { detectableDifference, successesInARow, type Scatter } from '../../../core/answers/plan';
import type { Series } from '../../charts/Chart';

const MOST = 20;

export interface HowMany {
  sentence: string;
  series: Series[];
}

/**
 * What difference so many prints would find with 80 % power, from the scatter seen so far.
 *
 * @param others contenders that are compared with the reference: they share the error probability
 * @param toUnit from the figure's unit to the one that is shown
 */
export function howManyPrints(
  scatter: Scatter | null,
  {
    delta,
    others,
    planned,
    unit,
    toUnit = (value) => value,
  }: {
    delta: number | null;
    others: number;
    planned: number;
    unit: string;
    toUnit?: (value: number) => number;
  },
): HowMany | null {
  if (!scatter) return null;
  const alpha = 1 - (1 - 0.05) ** (1 / Math.max(1, others));
  const found = (prints: number) => toUnit(detectableDifference(scatter, prints, alpha));
  const points = Array.from({ length: MOST - 1 }, (_, at) => [at + 2, found(at + 2)] as const);
  const enough = delta === null ? undefined : points.find(([, value]) => value <= delta)?.[0];
  const now =
    planned >= 2 ? `The plan’s ${planned} would find ${found(planned).toFixed(3)} ${unit}. ` : '';
  const need =
    delta === null
      ? 'No smallest difference of interest is stated.'
      : enough === undefined
        ? `Over ${MOST} prints each would be needed for ${delta} ${unit}.`
        : `${enough} prints each find ${delta} ${unit}, the smallest difference that matters.`;
  return {
    sentence: `${now}${need} 80 % power, ${others} comparisons, scatter from ${scatter.df} degrees of freedom.`,
    series: [{ name: 'difference that is found', colour: 'plum', points }],
  };
}

/** How many prints in a row must succeed for some statements about reliability. */
export const inARow = [0.8, 0.9, 0.95, 0.98, 0.99].map((reliability) => ({
  reliability,
  at90: successesInARow(reliability, 0.9),
  at95: successesInARow(reliability, 0.95),
}));
