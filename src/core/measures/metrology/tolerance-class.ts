import { ALLOWANCE } from '../../model/study';
import { percentile } from '../../statistics/stats';

/** Limits of the nominal size ranges up to 500 mm, in mm. */
const SIZE_LIMITS = [1, 3, 6, 10, 18, 30, 50, 80, 120, 180, 250, 315, 400, 500];

/** Multiples of the standard tolerance factor i for each grade. */
const GRADES: readonly (readonly [string, number])[] = [
  ['IT5', 7],
  ['IT6', 10],
  ['IT7', 16],
  ['IT8', 25],
  ['IT9', 40],
  ['IT10', 64],
  ['IT11', 100],
  ['IT12', 160],
  ['IT13', 250],
  ['IT14', 400],
  ['IT15', 640],
  ['IT16', 1000],
  ['IT17', 1600],
  ['IT18', 2500],
];

/**
 * Standard tolerance factor `i = 0.45·D^(1/3) + 0.001·D` in µm, with D the geometric mean of the
 * ends of the nominal size's range. A nominal on a limit belongs to the lower range.
 *
 * @param nominal nominal size in mm, over 0
 * @returns null above 500 mm, where the factor is another
 * @see ISO 286-1:2010, annex B
 */
export function toleranceFactor(nominal: number): number | null {
  const at = Math.max(
    1,
    SIZE_LIMITS.findIndex((limit) => nominal <= limit),
  );
  const upper = SIZE_LIMITS[at];
  const lower = SIZE_LIMITS[at - 1];
  if (nominal > 500 || upper === undefined || lower === undefined) return null;
  const size = Math.sqrt(lower * upper);
  return 0.45 * Math.cbrt(size) + 0.001 * size;
}

/** The tolerance class that a set of deviations would hold. */
export interface ToleranceClass {
  it_grade: string | null;
  /** Multiple of the tolerance factor; null where no size is within the standard's range. */
  it_value: number | null;
  it_basis: 'p95' | 'max';
  notes: string[];
}

/**
 * The finest grade whose symmetric zone ± IT/2 holds the deviations: by the 95th percentile of
 * `2·1000·|e|/i`, or by the maximum with fewer than 20 cells.
 */
export function toleranceClass(
  cells: readonly { nominal_mm: number; deviation_mm: number }[],
): ToleranceClass {
  const factors = new Map<number, number | null>();
  const values: number[] = [];
  for (const { nominal_mm, deviation_mm } of cells) {
    const factor = factors.get(nominal_mm) ?? toleranceFactor(nominal_mm);
    factors.set(nominal_mm, factor);
    if (factor !== null) values.push((2 * 1000 * Math.abs(deviation_mm)) / factor);
  }
  const it_basis = values.length < 20 ? 'max' : 'p95';
  if (values.length === 0) {
    return { it_grade: null, it_value: null, it_basis, notes: ['no nominal size up to 500 mm'] };
  }
  const it_value = percentile(values, it_basis === 'max' ? 1 : 0.95);
  const grade = GRADES.find(([, multiple]) => it_value <= multiple + ALLOWANCE);
  return {
    it_grade: grade?.[0] ?? null,
    it_value,
    it_basis,
    notes: grade ? [] : ['the tolerance class is above IT18'],
  };
}
