import { compareFamily, type PairRow } from '../../compare';
import { accuracyPairEvidence, surfacePairEvidence, timePairEvidence } from '../../evidence';
import { accuracyPair } from '../../metrology';
import { logPrintTimes } from '../../speed';
import { surfaceValues } from '../../surface';
import { contenderIds, MEASURED, type Section, type SectionContext } from '../section';
import { INSPECTED } from './surface';

/** Every other contender less the reference, with the verdict. */
export const pairs: Section<'pairs'> = {
  name: 'pairs',
  needs: [...MEASURED, ...INSPECTED],
  usesReference: true,
  compute: (context) => ({
    accuracy_mm: accuracyPairs(context),
    surface: surfacePairs(context),
    ln_print_s: timePairs(context),
  }),
  evidence: {
    pair: ({ index, reference, measurements }, contender) => {
      const measured = measurements();
      if (reference === null || !measured) return null;
      return accuracyPairEvidence(index, measured, contender, reference);
    },
    finish: ({ index, reference }, contender) =>
      reference === null ? null : surfacePairEvidence(index, contender, reference),
    time: ({ index, reference }, contender) =>
      reference === null ? null : timePairEvidence(index, contender, reference),
  },
};

function accuracyPairs({
  index,
  reference,
  alpha,
  measurements,
}: SectionContext): PairRow[] | null {
  const measured = measurements();
  if (!measured) return null;
  if (reference === null) return [];
  return compareFamily(
    contenderIds(index)
      .filter((id) => id !== reference)
      .map((contender) => ({ contender, ...accuracyPair(measured, contender, reference) })),
    {
      reference,
      alpha,
      delta: index.study.meta.smallest_difference.accuracy_mm ?? null,
      isLargerBetter: false,
    },
  );
}

function surfacePairs({ index, reference, alpha, has }: SectionContext): PairRow[] | null {
  if (!has('inspections')) return null;
  if (reference === null) return [];
  const valuesOf = surfaceValues(index);
  const referenceValues = valuesOf(reference);
  return compareFamily(
    contenderIds(index)
      .filter((id) => id !== reference)
      .map((contender) => ({
        contender,
        contenderValues: valuesOf(contender),
        referenceValues,
      })),
    {
      reference,
      alpha,
      delta: index.study.meta.smallest_difference.surface ?? null,
      isLargerBetter: true,
    },
  );
}

function timePairs({ index, reference, alpha }: SectionContext): PairRow[] {
  if (reference === null) return [];
  const share = index.study.meta.smallest_difference.time_pct ?? null;
  const referenceValues = logPrintTimes(index, reference);
  return compareFamily(
    contenderIds(index)
      .filter((id) => id !== reference)
      .map((contender) => ({
        contender,
        contenderValues: logPrintTimes(index, contender),
        referenceValues,
      })),
    {
      reference,
      alpha,
      delta: share === null ? null : Math.log(1 + share / 100),
      isLargerBetter: false,
    },
  );
}
