import { describePrintsNeeded, type PrintsAsked } from './prints-needed';
import type { PairRow } from '../../statistics/compare';
import { listed } from './lists';

/** A figure that two contenders are compared by. */
export interface ComparedFigure {
  label: string;
  row: PairRow | null;
}

/** More figures than this are counted, not named. */
const MANY = 3;

/**
 * What a comparison of two comes to, in sentences: where the one is better, where the other, where
 * they cannot be told apart, what is open and what would settle it.
 *
 * @param own the contender that is compared, and the other that it is compared with
 */
export function describeHeadToHead(
  own: string,
  other: string,
  figures: readonly ComparedFigure[],
): string[] {
  const of = (...verdicts: readonly PairRow['verdict'][]) =>
    figures.flatMap(({ label, row }) => (row && verdicts.includes(row.verdict) ? [label] : []));
  const [better, worse] = [of('better'), of('worse')];
  const same = of('trivial', 'indistinguishable');
  const said: string[] = [];
  if (better.length > 0) said.push(`${own} is better than ${other} in ${listed(better)}.`);
  if (worse.length > 0) {
    const against = better.length > 0 ? '' : ` than ${own}`;
    said.push(`${other} is better${against} in ${listed(worse)}.`);
  }
  if (better.length === 0 && worse.length === 0) {
    said.push(`No difference that matters has been shown between ${own} and ${other}.`);
  }
  if (same.length > 0) said.push(`In ${listed(same)} any difference is below what matters.`);
  const open = figures.filter(({ row }) => row?.verdict === 'unsettled');
  if (open.length > 0) {
    const names = open.map(({ label, row }) => withPrints(label, row));
    said.push(`Too close to call: ${listed(names)}.`);
  }
  const single = of('one_print');
  if (single.length > MANY) {
    said.push(`${single.length} figures rest on one print each and cannot be decided.`);
  } else if (single.length > 0) {
    said.push(`One print each, no conclusion: ${listed(single)}.`);
  }
  return said;
}

function withPrints(label: string, row: PrintsAsked | null | undefined): string {
  const prints = row ? describePrintsNeeded(row) : null;
  return prints === null ? label : `${label} (${prints})`;
}
