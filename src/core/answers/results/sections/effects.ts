import type { PairValues } from '../../../statistics/compare';
import { effectsOf, type Response } from '../../../statistics/effects';
import { accuracyPair, printValues, specimenErrors } from '../../../measures/metrology';
import { logPrintTimes } from '../../../measures/speed';
import type { PrintValues } from '../../../statistics/stats';
import { surfaceValues } from '../../../measures/surface';
import { MEASURED, type Section, type SectionContext } from '../section';
import { familyOf } from './pairs';
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

function errors(context: SectionContext): Response | null {
  const measured = context.measurements();
  return (
    measured && {
      valuesOf: (id) =>
        logarithms(printValues(specimenErrors(measured.cellsOfContender.get(id) ?? []), 'mae_mm')),
      isLargerBetter: false,
      verdictOf: verdictOf(context, 'accuracy_mm', (tuned, stock) =>
        accuracyPair(measured, tuned, stock),
      ),
    }
  );
}

function surfaces(context: SectionContext): Response | null {
  if (!context.has('inspections')) return null;
  const valuesOf = surfaceValues(context.index);
  const verdict = verdictOf(context, 'surface', sidesOf(valuesOf));
  return { valuesOf, isLargerBetter: true, verdictOf: verdict };
}

function times(context: SectionContext): Response {
  const valuesOf = (id: string) => logPrintTimes(context.index, id);
  const verdict = verdictOf(context, 'time_index', sidesOf(valuesOf));
  return { valuesOf, isLargerBetter: false, verdictOf: verdict };
}

type Sides = Omit<PairValues, 'contender'>;

const sidesOf =
  (valuesOf: (id: string) => PrintValues) =>
  (tuned: string, stock: string): Sides => ({
    contenderValues: valuesOf(tuned),
    referenceValues: valuesOf(stock),
  });

/** The verdict of a tuned contender against its stock one: a family of one, judged as the pairs are. */
const verdictOf =
  (
    context: SectionContext,
    figure: string,
    sides: (tuned: string, stock: string) => Sides,
  ): Response['verdictOf'] =>
  (tuned, stock) =>
    familyOf(context, figure, [tuned], stock, {}, (contender) => sides(contender, stock))[0] ??
    null;

/** Natural logarithms; a print without any error has none and takes no part. */
const logarithms = (values: PrintValues): PrintValues =>
  new Map(
    [...values]
      .map(([artefact, own]) => [artefact, own.filter((value) => value > 0).map(Math.log)] as const)
      .filter(([, own]) => own.length > 0),
  );
