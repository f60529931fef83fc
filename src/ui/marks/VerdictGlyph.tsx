import type { Verdict } from '../../core/compare';

/** A verdict as one sign, readable without colour, with its word for who does not see it. */
export const GLYPHS: Readonly<Record<Verdict, readonly [string, string]>> = {
  better: ['▲', 'better than the reference'],
  worse: ['▽', 'worse than the reference'],
  trivial: ['≈', 'different by less than matters'],
  indistinguishable: ['≈', 'indistinguishable'],
  unsettled: ['?', 'not settled'],
  one_print: ['1', 'one print: shown, not decided'],
};

interface VerdictGlyphProps {
  verdict: Verdict;
  prints_needed: number | null;
}

export function VerdictGlyph({ verdict, prints_needed }: VerdictGlyphProps) {
  const [glyph, words] = GLYPHS[verdict];
  const more = prints_needed === null ? '' : `, ${prints_needed} prints each needed`;
  const isDecided = verdict === 'better' || verdict === 'worse';
  return (
    <span className={isDecided ? 'text-plum' : 'text-ink-2'} data-hint={words + more}>
      <span aria-hidden="true">{glyph}</span>
      <span className="sr-only">{words + more}</span>
    </span>
  );
}
