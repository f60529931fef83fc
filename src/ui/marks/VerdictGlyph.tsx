import type { Verdict } from '../../core/statistics/compare';
import type { PrintsAsked } from '../../core/text/phrasing/prints-needed';
import { VERDICT_SIGNS, verdictInWords } from '../../core/text/phrasing/verdict';

interface VerdictGlyphProps extends PrintsAsked {
  verdict: Verdict;
}

/** A verdict as its sign, with its words for who does not see it. */
export function VerdictGlyph(row: VerdictGlyphProps) {
  const [sign] = VERDICT_SIGNS[row.verdict];
  const words = verdictInWords(row);
  const isDecided = row.verdict === 'better' || row.verdict === 'worse';
  return (
    <span className={isDecided ? 'text-plum' : 'text-ink-2'} data-hint={words}>
      <span aria-hidden="true">{sign}</span>
      <span className="sr-only">{words}</span>
    </span>
  );
}
