import { ALLOWANCE } from '../../model/study';
/** Comparisons with a limit allow this much, in mm. */

export type ToleranceState = 'inside' | 'outside' | 'undecided';

/**
 * Whether a deviation is inside its signed limits, both inclusive; `undecided` where a limit lies
 * within twice the standard uncertainty. Null without limits.
 *
 * @param uncertainty standard uncertainty in mm; null judges as if there were none
 * @see JCGM 106:2012, The role of measurement uncertainty in conformity assessment, 8
 */
export function judgeTolerance(
  deviation: number,
  lower: number | null,
  upper: number | null,
  uncertainty: number | null,
): ToleranceState | null {
  const limits = [lower, upper].filter((limit): limit is number => limit !== null);
  if (limits.length === 0) return null;
  const guard = 2 * (uncertainty ?? 0);
  if (guard > 0 && limits.some((limit) => Math.abs(deviation - limit) <= guard + ALLOWANCE)) {
    return 'undecided';
  }
  const isInside =
    (lower === null || deviation >= lower - ALLOWANCE) &&
    (upper === null || deviation <= upper + ALLOWANCE);
  return isInside ? 'inside' : 'outside';
}
