/** Ranges of nominal size by which errors are told apart: what scales shows in the large ones. */
export const SIZE_BANDS = ['to-10', 'to-30', 'to-100', 'over-100'] as const;

export type SizeBand = (typeof SIZE_BANDS)[number];

/** The range of a nominal size in mm; a nominal on a limit belongs to the lower range. */
export function sizeBand(nominal_mm: number): SizeBand {
  if (nominal_mm <= 10) return 'to-10';
  if (nominal_mm <= 30) return 'to-30';
  return nominal_mm <= 100 ? 'to-100' : 'over-100';
}
