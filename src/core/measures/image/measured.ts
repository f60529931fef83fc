import type { Interval } from '../../statistics/stats';

/** What a measure on a photo needs to know besides its pixels. */
export interface MeasureOptions {
  /** Pixels a millimetre, over 0. */
  px_per_mm: number;
  /** Height of the layers, mm, where it is known. */
  layer_height_mm?: number | null;
  /** Speed at which the wall was printed, mm/s, where it is known. */
  speed_mm_s?: number | null;
}

/** A value of a measure: a number, one with its interval, whether something was found; null: not known. */
export type MeasureValue = number | Interval | boolean | null;

/** The values of a measure by their names, and what is not known or to be told of them. */
export interface Measured {
  values: Record<string, MeasureValue>;
  notes: string[];
}
