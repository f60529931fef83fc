import type { PairRow } from '../compare';
import { listed } from './lists';

/**
 * What everyone comes to against the reference, in sentences: figure by figure who is better and
 * worse, and what is not decided.
 *
 * @param figures those that have a test, with what they are called
 */
export function saidGlance(
  reference: string,
  figures: readonly { label: string; rows: readonly PairRow[] }[],
  nameOf: (contender: string) => string,
): { said: string[]; open: string[] } {
  const said: string[] = [];
  const open: string[] = [];
  for (const { label, rows } of figures) {
    const of = (verdict: PairRow['verdict']) =>
      rows.filter((row) => row.verdict === verdict).map((row) => nameOf(row.contender));
    const parts = [
      [of('better'), 'better'],
      [of('worse'), 'worse'],
    ] as const;
    const found = parts.flatMap(([names, word]) =>
      names.length > 0 ? [`${listed(names)} ${word}`] : [],
    );
    if (found.length > 0) said.push(`${label}: ${found.join('; ')} than ${reference}.`);
    const unsettled = rows.filter((row) => row.verdict === 'unsettled');
    if (unsettled.length > 0) {
      const most = Math.max(...unsettled.map((row) => row.prints_needed ?? 0));
      const more = most > 0 ? `, ${most} prints each would settle all of them` : '';
      open.push(`${label}: ${listed(unsettled.map((row) => nameOf(row.contender)))}${more}`);
    }
  }
  return { said, open };
}
