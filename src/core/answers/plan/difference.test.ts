import { describe, expect, it } from 'vitest';
import { proposedDifferences, type DifferenceFacts } from './difference';

const NOTHING: DifferenceFacts = { instruments: [], dimensions: [], print_s: null };

describe('a smallest difference that could matter', () => {
  it('is the repeatability limit of a caliper, rounded up to what it shows', () => {
    // ISO 5725-6: 2.8 × 0.012 mm = 0.0336 mm.
    const instruments = [{ name: 'Caliper', repeatability_mm: 0.012, resolution_mm: 0.01 }];
    expect(proposedDifferences({ ...NOTHING, instruments })).toEqual([
      { field: 'accuracy_mm', value: 0.04, from: 'repeatability', instrument: 'Caliper' },
    ]);
  });

  it('is two steps of an instrument that has read nothing twice', () => {
    const instruments = [
      { name: 'Caliper', repeatability_mm: null, resolution_mm: 0.05 },
      { name: 'Tape', repeatability_mm: null, resolution_mm: null },
    ];
    expect(proposedDifferences({ ...NOTHING, instruments })).toEqual([
      {
        field: 'accuracy_mm',
        value: 0.1,
        from: 'resolution',
        instrument: 'Caliper',
        step_mm: 0.05,
      },
    ]);
  });

  it('never falls below a hundredth of a millimetre', () => {
    const instruments = [{ name: 'Bench', repeatability_mm: 0, resolution_mm: 0.001 }];
    expect(proposedDifferences({ ...NOTHING, instruments })[0]?.value).toBe(0.01);
  });

  it('is a fifth of the tightest tolerance', () => {
    const dimensions = [
      { name: 'length', lower_tol_mm: -0.2, upper_tol_mm: 0.2 },
      { name: 'bore', lower_tol_mm: 0, upper_tol_mm: 0.15 },
      { name: 'height', lower_tol_mm: null, upper_tol_mm: 0.01 },
    ];
    expect(proposedDifferences({ ...NOTHING, dimensions })).toMatchObject([
      { value: 0.03, from: 'tolerance', dimension: 'bore' },
    ]);
  });

  it('is 5 % of the print time where prints are known', () => {
    expect(proposedDifferences({ ...NOTHING, print_s: 7200 })).toEqual([
      { field: 'time_pct', value: 5, from: 'print time', print_s: 7200 },
    ]);
    expect(proposedDifferences(NOTHING)).toEqual([]);
  });
});
