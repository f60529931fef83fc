import { effectsOf, type Response } from '../../effects';
import { printValues, specimenErrors } from '../../metrology';
import { logPrintTimes } from '../../speed';
import type { PrintValues } from '../../stats';
import { surfaceValues } from '../../surface';
import type { Results } from '../results';
import { MEASURED, type Section, type SectionContext } from '../section';
import { pairsOf } from './pairs';
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
      verdictOf: verdictOf(context, 'accuracy_mm'),
    }
  );
}

function surfaces(context: SectionContext): Response | null {
  if (!context.has('inspections')) return null;
  const valuesOf = surfaceValues(context.index);
  return { valuesOf, isLargerBetter: true, verdictOf: verdictOf(context, 'surface') };
}

const times = (context: SectionContext): Response => ({
  valuesOf: (id) => logPrintTimes(context.index, id),
  isLargerBetter: false,
  verdictOf: verdictOf(context, 'ln_print_s'),
});

/** The verdict of a tuned contender against its stock one, as the pairs have it. */
const verdictOf =
  (context: SectionContext, figure: keyof Results['pairs']): Response['verdictOf'] =>
  (tuned, stock) =>
    pairsOf(context, [tuned], stock)[figure]?.[0] ?? null;

/** Natural logarithms; a print without any error has none and takes no part. */
const logarithms = (values: PrintValues): PrintValues =>
  new Map(
    [...values]
      .map(([artefact, own]) => [artefact, own.filter((value) => value > 0).map(Math.log)] as const)
      .filter(([, own]) => own.length > 0),
  );
