/** Why a reading is asked about before it is kept. */
export type Doubt = { far_mm: number } | null;

/**
 * Whether a value is so far from its nominal that it is asked about once: more than 10 % or 2 mm.
 * It may still be kept; an outlier is never dropped unseen.
 */
export function doubtReading(value_mm: number, nominal_mm: number): Doubt {
  const far_mm = value_mm - nominal_mm;
  const distance = Math.abs(far_mm);
  return distance > 2 + 1e-9 || distance > 0.1 * nominal_mm + 1e-9 ? { far_mm } : null;
}
