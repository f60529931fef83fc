/**
 * What a comparison of computed numbers allows, so that 0.3 is not more than 0.1 + 0.2: of a number in its
 * own unit (mm, %, a share, a score).
 */
export const ALLOWANCE = 1e-9;

/**
 * Whether a value reaches a bound, which is inclusive.
 *
 * @example isAtLeast(0.1 + 0.2, 0.3) // true
 */
export const isAtLeast = (value: number, bound: number): boolean => value >= bound - ALLOWANCE;

/**
 * Whether a value stays at or below a bound, which is inclusive.
 *
 * @example isAtMost(0.1 + 0.2, 0.3) // true
 */
export const isAtMost = (value: number, bound: number): boolean => value <= bound + ALLOWANCE;
