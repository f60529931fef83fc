import { partsOfStratum, type Print, type StudyIndex } from '../../model/study';
import {
  gatherValues,
  mapInterval,
  mean,
  medianOrNull,
  oneSideInterval,
  unknownInterval,
  type Interval,
  type PrintValues,
} from '../../statistics/stats';

/** How fast a contender is at one artefact. */
export interface ArtefactSpeed {
  /** Finished prints whose time is known. */
  n: number;
  /** Median printing time, s, heating and pauses apart. */
  median_print_s: number | null;
  /** Ratio of geometric means, contender over reference, over the strata that both have. */
  ratio_to_reference: number | null;
  /** What is not known, in words. */
  notes: string[];
}

/** How fast a contender is. */
export interface Speed {
  /** Finished prints whose time is known. */
  prints: number;
  /** Median printing time, s, heating and pauses apart. */
  median_print_s: number | null;
  /** Actual over estimated printing time. */
  estimate_ratio: Interval;
  /** Printing time against the reference; 1 for the reference itself. */
  time_index: Interval;
  /** The same for each artefact. */
  by_artefact: Record<string, ArtefactSpeed>;
  /** What is not known, in words. */
  notes: string[];
}

type TimedPrint = Print & { print_s: number };

const isTimed = (print: Print): print is TimedPrint =>
  (print.outcome === 'success' || print.outcome === 'rescued') && print.print_s !== null;

/** The finished prints of a contender whose printing time is known. */
export const timedPrints = (index: StudyIndex, contenderId: string): TimedPrint[] =>
  (index.printsOfContender.get(contenderId) ?? []).filter(isTimed);

const byStratum = <Timed extends Print>(
  index: StudyIndex,
  prints: readonly Timed[],
  valueOf: (print: Timed) => number,
): PrintValues => gatherValues(prints.map((print) => [index.stratumOf(print), valueOf(print)]));

/** Natural logarithm of the printing time in s of each finished print, by stratum. */
export const logPrintTimes = (index: StudyIndex, contenderId: string): PrintValues =>
  byStratum(index, timedPrints(index, contenderId), (print) => Math.log(print.print_s));

/**
 * Speed of every contender.
 *
 * @param logDifference difference of ln print_s to the reference, from the pair comparison
 */
export function speedOfAll(
  index: StudyIndex,
  reference: string | null,
  logDifference: (contenderId: string) => Interval | null,
  alpha: number,
): Record<string, Speed> {
  const referenceTimes = reference === null ? new Map() : logPrintTimes(index, reference);
  return Object.fromEntries(
    index.study.tables.contenders.map(({ contender_id }) => {
      const isReference = contender_id === reference;
      const difference = isReference ? null : logDifference(contender_id);
      const timeIndex = isReference
        ? { estimate: 1, low: null, high: null, notes: ['the reference'] }
        : difference
          ? mapInterval(difference, Math.exp)
          : unknownInterval('no artefact in the same material in common with the reference');
      return [contender_id, speedOf(index, contender_id, referenceTimes, timeIndex, alpha)];
    }),
  );
}

function speedOf(
  index: StudyIndex,
  contenderId: string,
  referenceTimes: PrintValues,
  time_index: Interval,
  alpha: number,
): Speed {
  const prints = timedPrints(index, contenderId);
  const attempted = index.printsOfContender.get(contenderId) ?? [];
  const finished = attempted.filter((print) => ['success', 'rescued'].includes(print.outcome));
  const untimed = finished.length - prints.length;
  const notes = untimed > 0 ? [`${untimed} finished prints without a printing time`] : [];
  if (prints.length === 0) notes.push('no finished print whose printing time is known');
  const estimated = prints.flatMap((print) =>
    print.estimate_s === null ? [] : [{ ...print, ratio: print.print_s / print.estimate_s }],
  );
  const ratios = byStratum(index, estimated, ({ ratio }) => Math.log(ratio));
  const times = logPrintTimes(index, contenderId);
  const artefacts = [...new Set(attempted.map((print) => print.artefact_id))];
  return {
    prints: prints.length,
    median_print_s: medianOrNull(prints.map((print) => print.print_s)),
    estimate_ratio: mapInterval(oneSideInterval(ratios, alpha), Math.exp),
    time_index,
    by_artefact: Object.fromEntries(
      artefacts.map((artefact) => [
        artefact,
        artefactSpeed(
          prints.filter((print) => print.artefact_id === artefact),
          ratiosIn(artefact, times, referenceTimes),
        ),
      ]),
    ),
    notes,
  };
}

/** In each stratum of an artefact that both have, the difference of the mean logarithms of the times. */
const ratiosIn = (artefact: string, own: PrintValues, reference: PrintValues): number[] =>
  [...own].flatMap(([stratum, times]) => {
    const others = reference.get(stratum);
    return others && partsOfStratum(stratum).artefact_id === artefact
      ? [mean(times) - mean(others)]
      : [];
  });

function artefactSpeed(prints: readonly TimedPrint[], logRatios: readonly number[]): ArtefactSpeed {
  if (prints.length === 0) {
    const notes = ['no finished print whose printing time is known'];
    return { n: 0, median_print_s: null, ratio_to_reference: null, notes };
  }
  return {
    n: prints.length,
    median_print_s: medianOrNull(prints.map((print) => print.print_s)),
    ratio_to_reference: logRatios.length > 0 ? Math.exp(mean(logRatios)) : null,
    notes:
      logRatios.length > 0
        ? []
        : ['the reference has no timed print of this artefact in the same material'],
  };
}
