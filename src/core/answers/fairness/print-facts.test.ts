import { describe, expect, it } from 'vitest';
import { print, smallStudy, TWO_SIDES } from '../../../../tests/support/small-study';
import { indexStudy } from '../../model/study';
import { printFacts } from './print-facts';

const AT = '2026-03-02T10:00:00Z';
const reading = (
  specimen_id: string,
  instrument_id: string | null,
  superseded_at: string | null = null,
) => ({
  specimen_id,
  dimension_id: 'x',
  trial: 1,
  value_mm: 20,
  instrument_id,
  operator: null,
  at: null,
  superseded_at,
});

/** With what the first print's specimens were measured, from the readings of them. */
function instrumentOf(readings: ReturnType<typeof reading>[]): unknown {
  const study = smallStudy({
    ...TWO_SIDES,
    prints: [print('r1', 'R', { repeat: 1 })],
    specimens: ['s1', 's2'].map((specimen_id) => ({ specimen_id, print_id: 'r1' })),
    readings,
  });
  const [first] = study.tables.prints;
  return first && printFacts(indexStudy(study)).circumstance(first, 'instrument');
}

describe('with what a print was measured', () => {
  it('is every instrument that a reading of its specimens was taken with', () => {
    expect(instrumentOf([reading('s1', 'caliper')])).toBe('caliper');
    const both = instrumentOf([reading('s1', 'micrometer'), reading('s2', 'caliper')]);
    expect(both).toBe(instrumentOf([reading('s2', 'caliper'), reading('s1', 'micrometer')]));
    expect(String(both)).toContain('caliper');
    expect(String(both)).toContain('micrometer');
  });

  it('is not told by a reading that was taken back, nor by one of no instrument', () => {
    expect(instrumentOf([reading('s1', 'caliper'), reading('s1', 'micrometer', AT)])).toBe(
      'caliper',
    );
    expect(instrumentOf([reading('s1', 'caliper'), reading('s2', null)])).toBe('caliper');
    expect(instrumentOf([reading('s1', 'caliper', AT)])).toBeNull();
    expect(instrumentOf([reading('s1', null)])).toBeNull();
  });
});
