import type { Interval } from '../../statistics/stats';
import type { Cost } from './cost';

/** What a good part costs when the hands that clean it up are paid too, in the study's currency. */
export interface CostWithAfterWork {
  /** Minutes of after-work a part times the wage; null where either is not known. */
  after_work: number | null;
  /** Cost of a good part with it; null where a part of it is not known. */
  per_good_part: number | null;
  /** Ends of its interval; null where there is none. */
  per_good_part_low: number | null;
  per_good_part_high: number | null;
  /** What is not known, in words. */
  notes: string[];
}

/**
 * Adds the after-work of a part to what a good part costs. The two are independent, so the distances
 * of their ends from their estimates add up as squares; after-work without an interval moves no end.
 *
 * @param minutes of after-work a part, over prints; undefined where no part was looked at
 * @param wage an hour of hands, in the study's currency; null where it is not known
 */
export function withAfterWork(
  cost: Cost,
  minutes: Interval | undefined,
  wage: number | null,
): CostWithAfterWork {
  const notes = [
    ...(minutes?.estimate == null ? ['after-work: no part was looked at'] : []),
    ...(wage === null ? ['after-work: wage not known'] : []),
  ];
  const { per_good_part: plain } = cost;
  if (minutes?.estimate == null || wage === null || plain === null) {
    const none = { per_good_part: null, per_good_part_low: null, per_good_part_high: null };
    return { after_work: null, ...none, notes: [...cost.notes, ...notes] };
  }
  const perMinute = wage / 60;
  const after_work = minutes.estimate * perMinute;
  const total = plain + after_work;
  const spread = (end: number | null, careEnd: number | null): number | null =>
    end === null
      ? null
      : Math.hypot(end - plain, careEnd === null ? 0 : careEnd * perMinute - after_work);
  const below = spread(cost.per_good_part_low, minutes.low);
  const above = spread(cost.per_good_part_high, minutes.high);
  return {
    after_work,
    per_good_part: total,
    per_good_part_low: below === null ? null : Math.max(0, total - below),
    per_good_part_high: above === null ? null : total + above,
    notes: [
      ...cost.notes,
      ...(minutes.low === null ? ['after-work: one print, no interval of its own'] : []),
    ],
  };
}
