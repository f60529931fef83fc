import type { StudyMeta } from './study';

/**
 * The smallest difference of interest of a figure, in the unit in which it is compared: of time as a
 * difference of logarithms, of successes as a share. Null where none is stated.
 *
 * @param figure a key as a scorecard has it
 */
export function smallestDifference(
  stated: StudyMeta['smallest_difference'],
  figure: string,
): number | null {
  const { time_pct, success_pct } = stated;
  if (figure === 'time_index') return time_pct == null ? null : Math.log(1 + time_pct / 100);
  if (figure === 'success') return success_pct == null ? null : success_pct / 100;
  return stated[figure] ?? null;
}
