import type { PairRow, Verdict } from '../../statistics/compare';
import { fewestPrintsAsked, describePrintsNeeded, type PrintsAsked } from './prints-needed';

/** A verdict as one sign, readable without colour, with its words for who does not see it. */
export const VERDICT_SIGNS: Readonly<Record<Verdict, readonly [sign: string, words: string]>> = {
  better: ['▲', 'better than the reference'],
  worse: ['▽', 'worse than the reference'],
  trivial: ['≈', 'different by less than matters'],
  indistinguishable: ['≈', 'indistinguishable'],
  unsettled: ['?', 'too close to call'],
  one_print: ['1', 'one print: no conclusion'],
};

/** A verdict’s words, with the prints that would settle it where they are known. */
export function verdictInWords(row: { verdict: Verdict } & PrintsAsked): string {
  const prints = describePrintsNeeded(row);
  return VERDICT_SIGNS[row.verdict][1] + (prints === null ? '' : `: ${prints}`);
}

/**
 * A verdict in a few words, with its figure: `better · 0.06 mm`, `too close to call · 4 prints each would tell`.
 *
 * @param unit `mm` shows the difference; `time` shows it in per cent of a logarithm's difference
 */
export function describeVerdict(row: PairRow, unit: 'mm' | 'time' | 'points'): string {
  switch (row.verdict) {
    case 'better':
    case 'worse':
      return `${row.verdict} · ${size(row.difference.estimate ?? 0, unit)}`;
    case 'unsettled': {
      const prints = fewestPrintsAsked(row);
      return prints === null
        ? 'too close to call'
        : `too close to call · ${prints} prints each would tell`;
    }
    case 'one_print':
      return 'one print';
    case 'trivial':
    case 'indistinguishable':
      return row.verdict;
  }
}

function size(difference: number, unit: 'mm' | 'time' | 'points'): string {
  if (unit === 'mm') return `${Math.abs(difference).toFixed(2)} mm`;
  if (unit === 'points') return `${Math.abs(difference).toFixed(0)} points`;
  return `${Math.abs(100 * (Math.exp(difference) - 1)).toFixed(0)} % ${difference < 0 ? 'less' : 'more'} time`;
}
