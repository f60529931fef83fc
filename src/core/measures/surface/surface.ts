import {
  gatherValues,
  meanOf,
  oneSideInterval,
  unknownInterval,
  type Interval,
  type PrintValues,
} from '../../statistics/stats';
import { groupBy, type StudyIndex } from '../../model/study';
import { inspectedSpecimens, type InspectedSpecimen } from './severity';

/** How clean a contender's parts come out. */
export interface Surface {
  /** Prints with a specimen that was inspected. */
  prints: number;
  /** Specimens that were inspected. */
  specimens: number;
  /** 100 for clean parts, 0 for severe ones, over prints. */
  index: Interval;
  /** Weight of the zones that were looked at over the weight of all, over prints. */
  coverage: number | null;
  /** Each specimen, with how bad each of its zones is. */
  by_specimen: {
    specimen_id: string;
    index: number;
    coverage: number | null;
    zones: { zone_id: string; severity: number }[];
  }[];
  /** What is not known, in words. */
  notes: string[];
}

/** The surface of every contender; `alpha` two-sided. */
export function surfaceOfAll(index: StudyIndex, alpha: number): Record<string, Surface> {
  const inspected = inspectedSpecimens(index);
  return Object.fromEntries(
    index.study.tables.contenders.map(({ contender_id }) => [
      contender_id,
      surfaceOf(inspected.get(contender_id) ?? [], alpha),
    ]),
  );
}

/** The surface index of each print of a contender, by stratum; the inspections are gone through once. */
export function surfaceValues(index: StudyIndex): (contenderId: string) => PrintValues {
  const inspected = inspectedSpecimens(index);
  return (contenderId) => printMeans(inspected.get(contenderId) ?? [], (one) => one.index);
}

/** The surface index of some prints by the one-side rule, cut to what an index can be. */
export const surfaceInterval = (values: PrintValues, alpha: number): Interval =>
  values.size === 0
    ? unknownInterval('no specimen was inspected')
    : within(oneSideInterval(values, alpha));

function surfaceOf(all: readonly InspectedSpecimen[], alpha: number): Surface {
  const known = all.flatMap((one) => (one.index === null ? [] : [{ ...one, index: one.index }]));
  const weightless = all.length - known.length;
  const coverage = printMeans(known, (one) => one.coverage);
  return {
    prints: new Set(known.map((one) => one.specimen.print_id)).size,
    specimens: known.length,
    index: surfaceInterval(
      printMeans(known, (one) => one.index),
      alpha,
    ),
    coverage: coverage.size === 0 ? null : oneSideInterval(coverage, alpha).estimate,
    by_specimen: known.map((one) => ({
      specimen_id: one.specimen.specimen_id,
      index: one.index,
      coverage: one.coverage,
      zones: one.zones.map(({ zone_id, severity }) => ({ zone_id, severity })),
    })),
    notes: weightless > 0 ? [`specimens whose inspected zones have no weight: ${weightless}`] : [],
  };
}

/** Specimens averaged to prints, prints by stratum; a specimen without a value is left out. */
function printMeans<One extends InspectedSpecimen>(
  specimens: readonly One[],
  valueOf: (one: One) => number | null,
): PrintValues {
  const known = specimens.flatMap((one) => {
    const value = valueOf(one);
    return value === null ? [] : [{ one, value }];
  });
  const prints = [...groupBy(known, ({ one }) => one.specimen.print_id).values()];
  return gatherValues(
    prints.map((group) => [group[0]?.one.stratum ?? '', meanOf(group, ({ value }) => value)]),
  );
}

/** An interval cut to what an index can be. */
const within = (interval: Interval): Interval => ({
  ...interval,
  low: interval.low === null ? null : Math.max(0, interval.low),
  high: interval.high === null ? null : Math.min(100, interval.high),
});
