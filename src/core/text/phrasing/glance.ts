import type { PairRow } from '../../statistics/compare';
import { capital, listed } from './lists';

/** How many figures are named in full where they are open. */
const NAMED = 4;

/**
 * The glance in sentences: figure by figure which contenders are better or worse than the reference,
 * and what is too close to call.
 *
 * @param figures those that have a test, with what they are called, what matters most first
 */
export function describeGlance(
  reference: string,
  figures: readonly { label: string; rows: readonly PairRow[] }[],
  nameOf: (contender: string) => string,
): { said: string[]; open: string[] } {
  const said: string[] = [];
  const open: string[] = [];
  for (const { label, rows } of figures) {
    const of = (verdict: PairRow['verdict']) =>
      rows.filter((row) => row.verdict === verdict).map((row) => nameOf(row.contender));
    const [better, worse] = [of('better'), of('worse')];
    const found = [
      ...(better.length > 0 ? [`${listed(better)} better than ${reference}`] : []),
      ...(worse.length > 0
        ? [`${listed(worse)} worse${better.length > 0 ? '' : ` than ${reference}`}`]
        : []),
    ];
    if (found.length > 0) said.push(`${capital(label)}: ${found.join(', ')}.`);
    const unsettled = rows.filter((row) => row.verdict === 'unsettled');
    if (unsettled.length === 0) continue;
    const who =
      unsettled.length === rows.length && rows.length > 1
        ? 'all'
        : listed(unsettled.map((row) => nameOf(row.contender)));
    open.push(`${label} (${who})`);
  }
  const more = open.length - NAMED;
  return { said, open: more > 0 ? [...open.slice(0, NAMED), `${more} more`] : open };
}
