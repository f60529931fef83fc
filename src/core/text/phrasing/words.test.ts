import { describe, expect, it } from 'vitest';
import type { PairRow } from '../../statistics/compare';
import type { GaugeStudy } from '../../measures/gauge';
import { beforeAfterSentence, readingsFor, describeAgreement, describeGauge } from './index';

const pair = (
  verdict: PairRow['verdict'],
  estimate: number,
  more: Partial<PairRow> = {},
): PairRow => ({
  contender: 'after',
  reference: 'before',
  artefacts: 1,
  strata: 1,
  prints_as_seen: null,
  on: [],
  verdict,
  prints_needed: null,
  p: null,
  p_adjusted: null,
  df: null,
  notes: [],
  difference: { estimate, low: null, high: null },
  ...more,
});
const ONE = { before: 1, after: 1 };

describe('before and after, in a sentence', () => {
  it('one print a side can show, not decide', () => {
    const said = beforeAfterSentence(pair('one_print', -0.021), ONE, 0.03);
    expect(said).toContain('0.021 mm nearer to nominal');
    expect(said).toContain(
      'one print before and one print after can show a difference, not decide it',
    );
  });

  it('says the same where nothing moved, and more where prints allow it', () => {
    expect(beforeAfterSentence(pair('one_print', 0.0002), ONE, null)).toContain(
      'as near to nominal',
    );
    const better = pair('better', -0.05, {
      difference: { estimate: -0.05, low: -0.07, high: -0.03 },
    });
    expect(beforeAfterSentence(better, { before: 3, after: 3 }, 0.03)).toContain(
      '(-0.070 to -0.030 mm). That is more than the scatter',
    );
    const open = pair('unsettled', 0.01, { prints_needed: 4 });
    expect(beforeAfterSentence(open, { before: 2, after: 2 }, 0.03)).toContain(
      'it takes 4 prints each to be sure either way',
    );
    expect(beforeAfterSentence(null, ONE, null)).toContain('Nothing has been measured');
  });
});

describe('how inspectors agree, in a sentence', () => {
  const said = (alpha: number | null, notes: string[] = []) =>
    describeAgreement({ alpha, units: 12, inspectors: 3, notes });

  it.each([
    [0.8, 'conclusions can rest on the grades'],
    [0.79, 'with care'],
    [0.667, 'with care'],
    [0.66, 'differ too much to conclude from'],
    [-0.2, 'differ too much to conclude from'],
  ])('α = %d', (alpha, words) => {
    expect(said(alpha)).toContain(words);
    expect(said(alpha)).toContain(`3 inspectors graded 12 zones alike to α = ${alpha.toFixed(2)}`);
  });

  it('says why it is not known', () => {
    expect(said(null, ['no zone was looked at by two inspectors'])).toBe(
      'No zone was looked at by two inspectors: how well grades agree is not known.',
    );
  });
});

describe('what a gauge study means', () => {
  const study: GaugeStudy = {
    parts: 10,
    operators: 3,
    trials: 3,
    interaction_p: 0.9,
    interaction_pooled: true,
    ev_mm: 0.01,
    av_mm: 0.004,
    interaction_mm: 0,
    grr_mm: 0.0108,
    pv_mm: 0.03,
    tv_mm: 0.0319,
    ev_pct: 31,
    av_pct: 13,
    interaction_pct: 0,
    grr_pct: 34,
    pv_pct: 94,
    ndc: 3,
    notes: [],
  };

  it('for the smallest difference of interest: twice σ√(2/n) is at most it', () => {
    // 2·0.01·√2 = 0.0283 is below 0.03: one reading; for 0.02 two, for 0.01 eight.
    expect(readingsFor(study, 0.03)).toBe(1);
    expect(readingsFor(study, 0.02)).toBe(2);
    expect(readingsFor(study, 0.01)).toBe(8);
    expect(readingsFor({ ev_mm: 0 }, 0.01)).toBe(1);
  });

  it('in words', () => {
    const said = describeGauge(study, 0.02).join(' ');
    expect(said).toContain('34 % of the variation');
    expect(said).toContain('not good enough');
    expect(said).toContain('fewer than the 5');
    expect(said).toContain('2 readings of each');
    const hands = describeGauge({ ...study, av_mm: 0.02, grr_pct: 8, ndc: 9 }, null).join(' ');
    expect(hands).toContain('let one person measure');
    expect(hands).toContain('good enough.');
  });
});
