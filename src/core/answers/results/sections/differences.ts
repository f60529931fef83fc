import { alphaOfEach, type PairRow, type Verdict } from '../../../statistics/compare';
import { smallestDifference, ALLOWANCE } from '../../../model/study';
import { shareDifference } from '../../../measures/sweep';
import { contenderIds, MEASURED, type Section, type SectionContext } from '../section';
import { familyOf, pairsOf, type FamilySizes } from './pairs';
import { photoValues } from './photo-values';
import { INSPECTED } from './surface';

/** Every figure that has a test, as a difference of some contenders to one other. */
export type Differences = Record<string, PairRow[]>;

/** Every figure that has a test, of every other contender less the reference. */
export const differences: Section<'differences'> = {
  name: 'differences',
  needs: [...MEASURED, ...INSPECTED],
  uses: ['reliability', 'photo'],
  usesReference: true,
  compute: (context) => {
    const { index, reference } = context;
    if (reference === null) return {};
    const others = contenderIds(index).filter((id) => id !== reference);
    return differencesOf(context, others, reference);
  },
};

/**
 * Every figure that has a test, by the key that a scorecard knows it by. Those compared together are
 * a family, whose error probability is shared out.
 *
 * @param others whom to compare with the reference
 * @param sizes of which larger families they are a part
 */
export function differencesOf(
  context: SectionContext,
  others: readonly string[],
  reference: string,
  sizes: FamilySizes = {},
): Differences {
  const { accuracy_mm, surface, ln_print_s } = pairsOf(context, others, reference, sizes);
  const photos = [...photoKeys(context)].map((key) => {
    const valuesOf = photoValues(context, key);
    const referenceValues = valuesOf(reference);
    const rows = familyOf(context, `photo:${key}`, others, reference, sizes, (contender) => ({
      contenderValues: valuesOf(contender),
      referenceValues,
    }));
    return [`photo:${key}`, rows] as const;
  });
  return {
    ...(accuracy_mm && { accuracy_mm }),
    ...(surface && { surface }),
    time_index: ln_print_s ?? [],
    success: successRows(context, others, reference, sizes.success),
    ...Object.fromEntries(photos.filter(([, rows]) => rows.length > 0)),
  };
}

/**
 * Every figure of one contender less another, each tested as in the study: at the error probability that a comparison
 * with its reference has, so that no two pages disagree.
 *
 * @param reference whom the study's contenders are compared with; null where nobody is
 */
export function differencesOfPair(
  context: SectionContext,
  contender: string,
  other: string,
  reference: string | null,
): Differences {
  if (reference === null) return differencesOf(context, [contender], other);
  const all = contenderIds(context.index).filter((id) => id !== reference);
  const family = differencesOf(context, all, reference);
  if (other === reference) {
    return Object.fromEntries(
      Object.entries(family).map(([figure, rows]) => [
        figure,
        rows.filter((row) => row.contender === contender),
      ]),
    );
  }
  const sizes = Object.fromEntries(
    Object.entries(family).map(([figure, rows]) => [
      figure,
      rows.filter((row) => row.difference.low !== null).length,
    ]),
  );
  return differencesOf(context, [contender], other, sizes);
}

const photoKeys = ({ resultOf }: SectionContext): Set<string> =>
  new Set(Object.values(resultOf('photo') ?? {}).flatMap((own) => Object.keys(own)));

/** Shares of successes, without what only the operator spoilt, by Newcombe's interval. */
function successRows(
  { index, alpha, resultOf }: SectionContext,
  others: readonly string[],
  reference: string,
  comparisons?: number,
): PairRow[] {
  const delta = smallestDifference(index.study.meta.smallest_difference, 'success');
  const tallyOf = (id: string) => {
    const runs = resultOf('reliability')[id]?.without_operator;
    return { good: runs?.good ?? 0, prints: runs?.prints ?? 0 };
  };
  const known = others.filter((id) => tallyOf(id).prints > 0 && tallyOf(reference).prints > 0);
  const each = alphaOfEach(alpha, comparisons ?? known.length);
  return known.map((contender): PairRow => {
    const at = (level: number) => shareDifference(tallyOf(contender), tallyOf(reference), level);
    const [difference, inner] = [at(each), at(2 * each)];
    const [low, high] = [difference.low ?? -1, difference.high ?? 1];
    const isDifferent = low > ALLOWANCE || high < -ALLOWANCE;
    const isEquivalent =
      delta !== null &&
      (inner.low ?? -1) > -delta + ALLOWANCE &&
      (inner.high ?? 1) < delta - ALLOWANCE;
    return {
      contender,
      reference,
      artefacts: 0,
      strata: 0,
      on: [],
      difference,
      p: null,
      p_adjusted: null,
      df: null,
      verdict: verdictOf(isDifferent, isEquivalent, difference.estimate ?? 0),
      prints_needed: null,
      prints_as_seen: null,
      notes: delta === null ? ['no smallest difference of interest is stated'] : [],
    };
  });
}

function verdictOf(isDifferent: boolean, isEquivalent: boolean, estimate: number): Verdict {
  if (isDifferent) return isEquivalent ? 'trivial' : estimate > 0 ? 'better' : 'worse';
  return isEquivalent ? 'indistinguishable' : 'unsettled';
}
