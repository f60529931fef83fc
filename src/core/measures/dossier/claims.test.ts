import { describe, expect, it } from 'vitest';
import { proposeFinding, provenBy, type ClaimFigures } from '.';

const NOTHING: ClaimFigures = {
  noise_db: null,
  accuracy_mm: null,
  price: null,
  build_mm: null,
  asked_mm_s: null,
  reached_mm_s: null,
  reached_share: null,
};
const finding = (
  quantity: string | null,
  unit: string | null,
  value: number | null,
  known: Partial<ClaimFigures>,
) => proposeFinding({ quantity, unit, value }, { ...NOTHING, ...known });

describe('a claim', () => {
  it('of a speed is refuted where no file asks for it, partly where it is reached for moments', () => {
    const speed = (asked_mm_s: number, reached_mm_s: number | null, reached_share: number | null) =>
      finding('speed', 'mm/s', 500, { asked_mm_s, reached_mm_s, reached_share });
    expect(speed(180, 180, 0)).toEqual({
      finding: 'refuted',
      evidence: 'no file asks for more than 180 mm/s',
    });
    expect(speed(500, 310, 0)).toEqual({
      finding: 'refuted',
      evidence: 'asked for, reached 310 mm/s',
    });
    expect(speed(500, 500, 0.004)).toEqual({
      finding: 'partly',
      evidence: 'reached for under 1 % of the time',
    });
    expect(speed(480, 480, 0.62)?.finding).toBe('confirmed');
    expect(speed(500, null, null)).toBeNull();
  });

  it('of noise holds where it is no louder, measured at 1 m while it prints', () => {
    expect(finding('noise', 'dB(A)', 50, { noise_db: 56.2 })).toEqual({
      finding: 'refuted',
      evidence: '56.2 dB(A) at 1 m, printing',
    });
    expect(finding(null, 'dB(A)', 50, { noise_db: 49.6 })?.finding).toBe('confirmed');
    expect(finding('noise', 'dB(A)', 50, {})).toBeNull();
  });

  it('of accuracy is decided by the whole interval', () => {
    const accuracy = (estimate: number, low: number, high: number) =>
      finding('accuracy', 'mm', 0.1, { accuracy_mm: { estimate, low, high } })?.finding;
    expect([
      accuracy(0.05, 0.03, 0.07),
      accuracy(0.2, 0.15, 0.25),
      accuracy(0.09, 0.07, 0.12),
    ]).toEqual(['confirmed', 'refuted', 'partly']);
  });

  it('of price and build size is held against what was paid and measured', () => {
    expect(finding('price', 'EUR', 600, { price: 689 })?.finding).toBe('refuted');
    expect(finding('build size', 'mm', 260, { build_mm: 256 })?.finding).toBe('confirmed');
    expect(finding('build size', 'mm', 300, { build_mm: 256 })?.finding).toBe('refuted');
  });

  it('without a figure of its own, or of what no figure knows, is for a person to judge', () => {
    expect(finding(null, null, null, { noise_db: 50 })).toBeNull();
    expect(finding('acceleration', 'mm/s²', 20_000, { asked_mm_s: 500 })).toBeNull();
    expect(provenBy({ quantity: 'ease of use', unit: null })).toBeNull();
    expect(provenBy({ quantity: 'speed', unit: 'mm/s' })).toMatch(/files ask for/);
  });
});
