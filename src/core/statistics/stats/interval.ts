/** An estimate with the ends of its two-sided interval; what is not known is null. */
export interface Interval {
  estimate: number | null;
  low: number | null;
  high: number | null;
  /** Why something here is null, or what to know about it. */
  notes?: string[];
}

/**
 * An interval of which nothing is known, and why.
 *
 * @example unknownInterval('no print') // { estimate: null, low: null, high: null, notes: ['no print'] }
 */
export const unknownInterval = (...notes: string[]): Interval => ({
  estimate: null,
  low: null,
  high: null,
  ...(notes.length > 0 && { notes }),
});

/**
 * An interval whose estimate, and perhaps ends, are put through an increasing function.
 *
 * @example mapInterval({ estimate: 0, low: -1, high: 1 }, Math.exp)
 * // { estimate: 1, low: 0.3679, high: 2.7183 }
 */
export function mapInterval(interval: Interval, through: (value: number) => number): Interval {
  const map = (value: number | null) => (value === null ? null : through(value));
  return {
    ...interval,
    estimate: map(interval.estimate),
    low: map(interval.low),
    high: map(interval.high),
  };
}

/**
 * An interval put through a decreasing function: the ends change places.
 *
 * @example mapIntervalReversed({ estimate: 1, low: 0, high: 3 }, (value) => -value)
 * // { estimate: -1, low: -3, high: 0 }
 */
export function mapIntervalReversed(
  interval: Interval,
  through: (value: number) => number,
): Interval {
  const mapped = mapInterval(interval, through);
  return { ...mapped, low: mapped.high, high: mapped.low };
}
