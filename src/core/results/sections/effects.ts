import { compareFamily, type PairRow, type PairValues } from '../../compare';
import { effectsOf, type Response } from '../../effects';
import { accuracyPair, printValues, specimenErrors } from '../../metrology';
import { logPrintTimes } from '../../speed';
import type { PrintValues } from '../../stats';
import { surfaceValues } from '../../surface';
import { MEASURED, type Section, type SectionContext } from '../section';
import { INSPECTED } from './surface';

/** Machine or profile: what each explains, and what tuning gains on each machine. */
export const effects: Section<'effects'> = {
  name: 'effects',
  needs: [...MEASURED, ...INSPECTED],
  usesReference: false,
  compute: (context) => {
    const { index, alpha } = context;
    const of = (response: Response | null) => response && effectsOf(index, response, alpha);
    return {
      ln_mae: of(errors(context)),
      surface_index: of(surfaces(context)),
      ln_print_s: of(times(context)),
    };
  },
};

function errors({ index, alpha, measurements }: SectionContext): Response | null {
  const measured = measurements();
  if (!measured) return null;
  const delta = index.study.meta.smallest_difference.accuracy_mm ?? null;
  return {
    valuesOf: (id) =>
      logarithms(printValues(specimenErrors(measured.cellsOfContender.get(id) ?? []), 'mae_mm')),
    isLargerBetter: false,
    verdictOf: (tuned, stock) =>
      verdict({ contender: tuned, ...accuracyPair(measured, tuned, stock) }, stock, alpha, delta),
  };
}

function surfaces({ index, alpha, has }: SectionContext): Response | null {
  if (!has('inspections')) return null;
  const valuesOf = surfaceValues(index);
  const delta = index.study.meta.smallest_difference.surface ?? null;
  return {
    valuesOf,
    isLargerBetter: true,
    verdictOf: (tuned, stock) =>
      verdict(
        { contender: tuned, contenderValues: valuesOf(tuned), referenceValues: valuesOf(stock) },
        ...([stock, alpha, delta, true] as const),
      ),
  };
}

function times({ index, alpha }: SectionContext): Response {
  const valuesOf = (id: string) => logPrintTimes(index, id);
  const share = index.study.meta.smallest_difference.time_pct ?? null;
  const delta = share === null ? null : Math.log(1 + share / 100);
  return {
    valuesOf,
    isLargerBetter: false,
    verdictOf: (tuned, stock) =>
      verdict(
        { contender: tuned, contenderValues: valuesOf(tuned), referenceValues: valuesOf(stock) },
        ...([stock, alpha, delta] as const),
      ),
  };
}

function verdict(
  pair: PairValues,
  reference: string,
  alpha: number,
  delta: number | null,
  isLargerBetter = false,
): PairRow | null {
  return compareFamily([pair], { reference, alpha, delta, isLargerBetter })[0] ?? null;
}

/** Natural logarithms; a print without any error has none and takes no part. */
const logarithms = (values: PrintValues): PrintValues =>
  new Map(
    [...values]
      .map(([artefact, own]) => [artefact, own.filter((value) => value > 0).map(Math.log)] as const)
      .filter(([, own]) => own.length > 0),
  );
