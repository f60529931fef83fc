import { describe, expect, it } from 'vitest';
import type { SpecimenMeasurements } from '../../../contract/specimens';
import { cellsNow, type BenchCell, type BenchReading } from './use-specimen';

const reading = (reading_id: string, dimension_id: string, value_mm: number): BenchReading => ({
  reading_id,
  dimension_id,
  value_mm,
  specimen_id: 's',
  instrument_id: null,
});
const there = (
  readings: readonly BenchReading[],
  unmeasured: readonly string[] = [],
): SpecimenMeasurements => ({
  readings: readings.map(({ specimen_id: _, ...one }) => ({ ...one, trial: 1, operator: 'AB' })),
  unmeasured: unmeasured.map((dimension_id) => ({ dimension_id, reason: null, row_version: 1 })),
});
const held = (...readings: readonly BenchReading[]): Record<string, BenchCell> => {
  const cells: Record<string, BenchCell> = {};
  for (const one of readings) {
    const before = cells[one.dimension_id]?.readings ?? [];
    cells[one.dimension_id] = { readings: [...before, one], isUnmeasurable: false };
  }
  return cells;
};
const idsOf = (cells: Record<string, BenchCell>, dimension: string) =>
  cells[dimension]?.readings.map(({ reading_id }) => reading_id) ?? [];
const NOTHING_OWN = { isOnItsWay: () => false, isUndone: () => false };

describe('the cells of a specimen after somebody else has changed them', () => {
  it('are as the server has them: theirs come, and what they took back goes', () => {
    const cells = cellsNow(
      's',
      there([reading('theirs', 'x1', 20.02)]),
      held(reading('gone', 'x1', 19.9), reading('gone-too', 'x2', 40.1)),
      NOTHING_OWN,
    );
    expect(idsOf(cells, 'x1')).toEqual(['theirs']);
    expect(idsOf(cells, 'x2')).toEqual([]);
    expect(cells.x1?.readings[0]).toMatchObject({ specimen_id: 's', value_mm: 20.02 });
  });

  it('keep what is on its way from here, once, after what is there', () => {
    const mine = reading('mine', 'x1', 20.1);
    const own = { ...NOTHING_OWN, isOnItsWay: (id: string) => id === 'mine' };
    const before = cellsNow('s', there([reading('theirs', 'x1', 20)]), held(mine), own);
    expect(idsOf(before, 'x1')).toEqual(['theirs', 'mine']);
    // It has arrived meanwhile, and the outbox has not heard of it yet.
    const after = cellsNow('s', there([reading('theirs', 'x1', 20), mine]), before, own);
    expect(idsOf(after, 'x1')).toEqual(['theirs', 'mine']);
  });

  it('do not bring back what was taken back here and is still there', () => {
    const own = { ...NOTHING_OWN, isUndone: (id: string) => id === 'wrong' };
    const cells = cellsNow('s', there([reading('wrong', 'x1', 2)]), {}, own);
    expect(idsOf(cells, 'x1')).toEqual([]);
  });

  it('cannot be measured where somebody says so, and can again where nobody does', () => {
    const said = cellsNow('s', there([], ['x1']), {}, NOTHING_OWN);
    expect(said.x1?.isUnmeasurable).toBe(true);
    expect(cellsNow('s', there([]), said, NOTHING_OWN).x1?.isUnmeasurable ?? false).toBe(false);
  });
});
