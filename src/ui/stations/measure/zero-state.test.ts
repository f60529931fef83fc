import { describe, expect, it } from 'vitest';
import { doubtReading } from '../../../core/measures/metrology/doubt';
import { zeroState } from './zero-state';

const NOW = Date.parse('2026-03-03T15:00:00Z');
const look = (at: string, value_mm: number, instrument_id = 'c') => ({
  instrument_id,
  at,
  value_mm,
});

describe('the zero of an instrument', () => {
  it('is not known of yesterday, or of another instrument', () => {
    const zeros = [look('2026-03-02T15:00:00Z', 0.01), look('2026-03-03T14:00:00Z', 0.02, 'other')];
    expect(zeroState({ id: 'c', zero_mm: 0 }, zeros, NOW)).toEqual({
      last: null,
      drift_mm: null,
      off_mm: null,
    });
  });

  it('drifts from the first look of the session to the last', () => {
    const zeros = [
      look('2026-03-03T16:30:00+01:00', 0.02),
      look('2026-03-03T09:00:00+01:00', 0.01),
    ];
    const state = zeroState({ id: 'c', zero_mm: 0.01 }, zeros, Date.parse('2026-03-03T15:45:00Z'));
    expect(state.last?.value_mm).toBe(0.02);
    expect(state.drift_mm).toBeCloseTo(0.01, 9);
    expect(state.off_mm).toBeCloseTo(0.01, 9);
  });
});

describe('a doubtful reading', () => {
  it('is far from its nominal, or from what was read there before', () => {
    expect(doubtReading(20.1, 20)).toBeNull();
    expect(doubtReading(22.1, 20)).toMatchObject({ from: 'nominal' });
    expect(doubtReading(20.25, 20, [20.1, 20.12])).toMatchObject({
      from: 'earlier',
      far_mm: expect.closeTo(0.14, 9),
    });
    expect(doubtReading(20.2, 20, [20.1, 20.12])).toBeNull();
  });
});
