import { median, sum, sumOf } from '../statistics/stats/summary';
import { holdBack } from './claim';
import type { ClaimFacts, ToolpathFacts } from './facts';
import type { MachineRecord } from './machine';

/** What a contender's files ask for and reach together, against what its machine claims. */
export interface Reach {
  files: number;
  commanded_max: number | null;
  reached_max: number | null;
  /** Seconds of extruding at each reached speed, in bins of 10 mm/s. */
  reached_s: number[];
  /** Speeds with 5, 50 and 95 % of the extruding time at or below them, mm/s (to a bin). */
  reached: { p5: number; p50: number; p95: number } | null;
  /** The speed at which the hotend's flow limit is used up, mm/s. */
  flow_limited_mm_s: number | null;
  claim: ClaimFacts | null;
}

const BIN = 10;

/** Puts the facts of a contender's files together. Files of other claims are left out of the share. */
export function reachOf(files: readonly ToolpathFacts[], machine: MachineRecord): Reach {
  const reached_s = addUp(files.map((file) => file.speed.histogram.reached_s));
  const commanded_max = largestOf(files.map((file) => file.speed.commanded_max));
  const reached_max = largestOf(files.map((file) => file.speed.reached_max));
  const numbers = (key: string) =>
    files.flatMap((file) => {
      const value = file.settings[key];
      return typeof value === 'number' && value > 0 ? [value] : [];
    });
  const widths = numbers('line_width_mm');
  const stated = numbers('layer_height_mm');
  const heights =
    stated.length > 0 ? stated : files.flatMap((file) => file.layer_heights_mm.median ?? []);
  const area = widths.length > 0 && heights.length > 0 ? median(widths) * median(heights) : null;
  const limit = machine.max_flow_mm3_s ?? null;
  return {
    files: files.length,
    commanded_max,
    reached_max,
    reached_s,
    reached: spreadOf(reached_s),
    flow_limited_mm_s: area !== null && limit !== null ? limit / area : null,
    claim: claimOfAll(files, machine, { commanded_max, reached_max }, area),
  };
}

function claimOfAll(
  files: readonly ToolpathFacts[],
  machine: MachineRecord,
  speed: Pick<Reach, 'commanded_max' | 'reached_max'>,
  area: number | null,
): ClaimFacts | null {
  const claimed = machine.claimed_speed_mm_s;
  if (claimed === undefined) return null;
  const own = files.filter((file) => file.claim?.claimed === claimed);
  const times = own.map((file) => sum(file.speed.histogram.reached_s));
  const within = own.map((file, at) => (file.claim?.share_within_5pct ?? 0) * (times[at] ?? 0));
  const total = sum(times);
  const needs = {
    flow_needed_mm3_s: area === null ? null : claimed * area,
    flow_limit_mm3_s: machine.max_flow_mm3_s ?? null,
  };
  return {
    claimed,
    ...speed,
    share_within_5pct: total > 0 ? sum(within) / total : null,
    ...needs,
    held_back_by: holdBack(claimed, speed, needs),
    notes: area === null ? ['line width not known: no flow'] : [],
  };
}

const largestOf = (values: readonly (number | null)[]): number | null => {
  const known = values.filter((value) => value !== null);
  return known.length === 0 ? null : known.reduce((a, b) => Math.max(a, b));
};

function addUp(histograms: readonly (readonly number[])[]): number[] {
  const longest = histograms.reduce((length, one) => Math.max(length, one.length), 0);
  return Array.from({ length: longest }, (_, at) => sumOf(histograms, (one) => one[at] ?? 0));
}

function spreadOf(seconds: readonly number[]): Reach['reached'] {
  const total = sum(seconds);
  if (total <= 0) return null;
  const at = (share: number): number => {
    let below = 0;
    for (const [bin, time] of seconds.entries()) {
      if (below + time >= share * total) {
        return BIN * (bin + (time > 0 ? (share * total - below) / time : 0));
      }
      below += time;
    }
    return BIN * seconds.length;
  };
  return { p5: at(0.05), p50: at(0.5), p95: at(0.95) };
}
