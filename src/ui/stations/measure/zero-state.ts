import type { BenchInstrument, BenchZero } from '../../../contract/measure';

/** A zero is looked at again after so many readings, and after so many hours. */
export const READINGS_PER_ZERO = 25;
const HOURS_PER_ZERO = 8;

/** What is known of an instrument's zero now. */
export interface ZeroState {
  /** The last look, if it is of this session. */
  last: BenchZero | null;
  /** Difference to the first look of the day, mm; null with fewer than two. */
  drift_mm: number | null;
  /** Difference to the zero that every reading is taken less, mm; null where nothing was looked at. */
  off_mm: number | null;
}

/** Reads the looks at an instrument's zero; those of the last hours are this session's. */
export function zeroState(
  instrument: Pick<BenchInstrument, 'id' | 'zero_mm'>,
  zeros: readonly BenchZero[],
  now: number,
): ZeroState {
  const own = zeros
    .filter(({ instrument_id }) => instrument_id === instrument.id)
    .map((zero) => ({ zero, at: Date.parse(zero.at) }))
    .filter(({ at }) => at > now - HOURS_PER_ZERO * 3_600_000 && at <= now + 60_000)
    .sort((a, b) => a.at - b.at)
    .map(({ zero }) => zero);
  const [first] = own;
  const last = own.at(-1) ?? null;
  return {
    last,
    drift_mm: first && last && own.length > 1 ? last.value_mm - first.value_mm : null,
    off_mm: last && last.value_mm - (instrument.zero_mm ?? 0),
  };
}
