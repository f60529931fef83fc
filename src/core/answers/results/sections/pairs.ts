import { compareFamily, type PairValues } from '../../../statistics/compare';
import { accuracyPairEvidence, surfacePairEvidence, timePairEvidence } from '../../evidence';
import { accuracyPair } from '../../../measures/metrology';
import { logPrintTimes } from '../../../measures/speed';
import { smallestDifference } from '../../../model/study';
import { surfaceValues } from '../../../measures/surface';
import type { Results } from '../results';
import { contenderIds, MEASURED, type Section, type SectionContext } from '../section';
import { INSPECTED } from './surface';

/** Every other contender less the reference, with the verdict. */
export const pairs: Section<'pairs'> = {
  name: 'pairs',
  needs: [...MEASURED, ...INSPECTED],
  usesReference: true,
  compute: (context) => {
    const { index, reference } = context;
    const others = contenderIds(index).filter((id) => id !== reference);
    return pairsOf(context, reference === null ? [] : others, reference ?? '');
  },
  evidence: ({ index, reference, measurements }, { contender, key }) => {
    const measured = measurements();
    if (reference === null) return null;
    switch (key) {
      case 'accuracy_mm':
        return measured && accuracyPairEvidence(index, measured, contender, reference);
      case 'surface':
        return surfacePairEvidence(index, contender, reference);
      case 'ln_print_s':
        return timePairEvidence(index, contender, reference);
      default:
        return null;
    }
  },
};

/** By figure: how many comparisons the family has that a pair belongs to. */
export type FamilySizes = Readonly<Record<string, number>>;

/**
 * Accuracy, surface and time of some contenders less those of one other; those compared together are a
 * family. Null where the study does not measure, or does not inspect.
 *
 * @param sizes of which larger families they are a part
 */
export function pairsOf(
  context: SectionContext,
  others: readonly string[],
  reference: string,
  sizes: FamilySizes = {},
): Results['pairs'] {
  const { index, has, measurements } = context;
  const measured = measurements();
  const surfaces = has('inspections') ? surfaceValues(index) : null;
  const referenceSurface = surfaces?.(reference) ?? new Map();
  const referenceTimes = logPrintTimes(index, reference);
  return {
    accuracy_mm:
      measured &&
      familyOf(context, 'accuracy_mm', others, reference, sizes, (contender) =>
        accuracyPair(measured, contender, reference),
      ),
    surface:
      surfaces &&
      familyOf(context, 'surface', others, reference, sizes, (contender) => ({
        contenderValues: surfaces(contender),
        referenceValues: referenceSurface,
      })),
    ln_print_s: familyOf(context, 'time_index', others, reference, sizes, (contender) => ({
      contenderValues: logPrintTimes(index, contender),
      referenceValues: referenceTimes,
    })),
  };
}

/** A family of comparisons of one figure, judged by the study's smallest difference of it. */
export function familyOf(
  { index, alpha }: SectionContext,
  figure: string,
  others: readonly string[],
  reference: string,
  sizes: FamilySizes,
  valuesOf: (contender: string) => Omit<PairValues, 'contender'>,
) {
  const comparisons = sizes[figure];
  return compareFamily(
    others.map((contender) => ({ contender, ...valuesOf(contender) })),
    {
      ...(comparisons !== undefined && { comparisons }),
      reference,
      alpha,
      isLargerBetter: figure === 'surface',
      delta: smallestDifference(index.study.meta.smallest_difference, figure),
    },
  );
}
