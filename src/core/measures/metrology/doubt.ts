import { ALLOWANCE } from '../../model/study';
/** Why a reading is asked about before it is kept: how far it is, from its nominal or from earlier readings. */
export type Doubt = { far_mm: number; from: 'nominal' | 'earlier' } | null;

/** Readings of one place that lie further apart are asked about: ten times what a caliper repeats. */
const APART_MM = 0.1;

/**
 * Whether a value is asked about once: more than 10 % or 2 mm from its nominal, or more than 0.1 mm
 * from the mean of the earlier readings of the same place. It may still be kept; an outlier is never
 * dropped unseen.
 */
export function doubtReading(
  value_mm: number,
  nominal_mm: number,
  earlier_mm: readonly number[] = [],
): Doubt {
  const far_mm = value_mm - nominal_mm;
  const distance = Math.abs(far_mm);
  if (distance > 2 + ALLOWANCE || distance > 0.1 * nominal_mm + ALLOWANCE)
    return { far_mm, from: 'nominal' };
  if (earlier_mm.length === 0) return null;
  const apart = value_mm - earlier_mm.reduce((sum, one) => sum + one, 0) / earlier_mm.length;
  return Math.abs(apart) > APART_MM + ALLOWANCE ? { far_mm: apart, from: 'earlier' } : null;
}
