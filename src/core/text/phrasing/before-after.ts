import { describePrintsNeeded, type PrintsAsked } from './prints-needed';
import type { PairRow } from '../../statistics/compare';

const mm = (value: number): string => Math.abs(value).toFixed(3);

/**
 * What the prints on either side of a change prove about how accurate the machine is, in a sentence.
 *
 * @param pair the comparison of after with before; null where nothing can be compared
 * @param delta the smallest difference that matters, mm
 */
export function beforeAfterSentence(
  pair: PairRow | null,
  prints: { before: number; after: number },
  delta: number | null,
): string {
  if (!pair || pair.difference.estimate === null)
    return 'Nothing has been measured on both sides yet.';
  const { estimate, low, high } = pair.difference;
  const way = estimate < 0 ? 'nearer to' : 'further from';
  const found =
    Math.abs(estimate) < 5e-4
      ? 'After the change the parts are on average as near to nominal as before'
      : `After the change the parts are on average ${mm(estimate)} mm ${way} nominal`;
  const range =
    low === null || high === null ? '' : ` (${low.toFixed(3)} to ${high.toFixed(3)} mm)`;
  switch (pair.verdict) {
    case 'one_print':
      return (
        `${found}, but ${said(prints.before)} before and ${said(prints.after)} after can show a ` +
        'difference, not decide it: all places of a plate share its faults. Two prints on each ' +
        'side would begin to.'
      );
    case 'better':
    case 'worse':
      return `${found}${range}. That is more than the scatter of the prints.`;
    case 'trivial':
      return `${found}${range}. The change is real, but smaller than the ±${delta} mm that matters.`;
    case 'indistinguishable':
      return `Before and after are the same for this purpose: any difference is below the ±${delta} mm that matters.`;
    case 'unsettled':
      return `${found}${range}. That is too close to call${printsTail(pair)}.`;
  }
}

function printsTail(pair: PrintsAsked): string {
  const prints = describePrintsNeeded(pair);
  return prints === null ? '' : `; it takes ${prints}`;
}

const said = (prints: number): string => (prints === 1 ? 'one print' : `${prints} prints`);
