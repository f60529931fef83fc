import {
  alphaOfEach,
  compareFamily,
  type PairRow,
  type PairValues,
  type Verdict,
} from '../../compare';
import { accuracyPair } from '../../metrology';
import { logPrintTimes } from '../../speed';
import type { PrintValues } from '../../stats';
import { surfaceValues } from '../../surface';
import { shareDifference } from '../../sweep';
import { contenderIds, MEASURED, type Section, type SectionContext } from '../section';
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
 */
export function differencesOf(
  context: SectionContext,
  others: readonly string[],
  reference: string,
): Differences {
  const { index, alpha, has, measurements } = context;
  const { smallest_difference: smallest } = index.study.meta;
  const compare = (
    valuesOf: (contender: string) => Omit<PairValues, 'contender'>,
    delta: number | null,
    isLargerBetter = false,
  ) =>
    compareFamily(
      others.map((contender) => ({ contender, ...valuesOf(contender) })),
      { reference, alpha, delta, isLargerBetter },
    );
  const measured = measurements();
  const surfaces = has('inspections') ? surfaceValues(index) : null;
  const sides = (valuesOf: (id: string) => PrintValues) => (contender: string) => ({
    contenderValues: valuesOf(contender),
    referenceValues: valuesOf(reference),
  });
  const percent = smallest.time_pct ?? null;
  const photos = [...photoKeys(context)].map((key) => {
    const delta = smallest[`photo:${key}`] ?? null;
    return [`photo:${key}`, compare(sides(photoValues(context, key)), delta)] as const;
  });
  return {
    ...(measured && {
      accuracy_mm: compare(
        (contender) => accuracyPair(measured, contender, reference),
        smallest.accuracy_mm ?? null,
      ),
    }),
    ...(surfaces && { surface: compare(sides(surfaces), smallest.surface ?? null, true) }),
    time_index: compare(
      sides((id) => logPrintTimes(index, id)),
      percent === null ? null : Math.log(1 + percent / 100),
    ),
    success: successRows(context, others, reference),
    ...Object.fromEntries(photos.filter(([, rows]) => rows.length > 0)),
  };
}

const photoKeys = ({ resultOf }: SectionContext): Set<string> =>
  new Set(Object.values(resultOf('photo') ?? {}).flatMap((own) => Object.keys(own)));

/** Shares of successes, without what only the operator spoilt, by Newcombe's interval. */
function successRows(
  { index, alpha, resultOf }: SectionContext,
  others: readonly string[],
  reference: string,
): PairRow[] {
  const points = index.study.meta.smallest_difference.success_pct ?? null;
  const delta = points === null ? null : points / 100;
  const tallyOf = (id: string) => {
    const runs = resultOf('reliability')[id]?.without_operator;
    return { good: runs?.good ?? 0, prints: runs?.prints ?? 0 };
  };
  const known = others.filter((id) => tallyOf(id).prints > 0 && tallyOf(reference).prints > 0);
  const each = alphaOfEach(alpha, known.length);
  return known.map((contender): PairRow => {
    const at = (level: number) => shareDifference(tallyOf(contender), tallyOf(reference), level);
    const [difference, inner] = [at(each), at(2 * each)];
    const [low, high] = [difference.low ?? -1, difference.high ?? 1];
    const isDifferent = low > 1e-9 || high < -1e-9;
    const isEquivalent =
      delta !== null && (inner.low ?? -1) > -delta + 1e-9 && (inner.high ?? 1) < delta - 1e-9;
    return {
      ...{ contender, reference, artefacts: 0, difference, p: null, p_adjusted: null, df: null },
      verdict: verdictOf(isDifferent, isEquivalent, difference.estimate ?? 0),
      prints_needed: null,
      notes: delta === null ? ['no smallest difference of interest is stated'] : [],
    };
  });
}

function verdictOf(isDifferent: boolean, isEquivalent: boolean, estimate: number): Verdict {
  if (isDifferent) return isEquivalent ? 'trivial' : estimate > 0 ? 'better' : 'worse';
  return isEquivalent ? 'indistinguishable' : 'unsettled';
}
