import { compareFamily, type PairRow } from '../../compare';
import { accuracyPairEvidence, timePairEvidence } from '../../evidence';
import { accuracyPair } from '../../metrology';
import { logPrintTimes } from '../../speed';
import { contenderIds, MEASURED, type Section, type SectionContext } from '../section';

/** Every other contender less the reference, with the verdict. */
export const pairs: Section<'pairs'> = {
  name: 'pairs',
  needs: MEASURED,
  usesReference: true,
  compute: (context) => ({
    accuracy_mm: accuracyPairs(context),
    surface: null,
    ln_print_s: timePairs(context),
  }),
  evidence: {
    pair: ({ index, reference, measurements }, contender) => {
      const measured = measurements();
      if (reference === null || !measured) return null;
      return accuracyPairEvidence(index, measured, contender, reference);
    },
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
