import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { packRows, unpackRows } from './packed-rows';

const cell = fc.oneof(fc.constant(null), fc.integer(), fc.string(), fc.boolean());

describe('packed rows', () => {
  it('come out as they went in', () => {
    fc.assert(
      fc.property(fc.array(fc.record({ a: cell, b: cell, c: cell })), (rows) => {
        expect(unpackRows(packRows(rows))).toEqual(rows);
      }),
    );
  });

  it('name a column once, and what is the same in all rows once', () => {
    const rows = [
      { id: 'P-1', note: null, plate: 'smooth' },
      { id: 'P-2', note: null, plate: 'smooth' },
    ];
    expect(packRows(rows)).toEqual({
      columns: ['id'],
      cells: [['P-1'], ['P-2']],
      same: { note: null, plate: 'smooth' },
    });
    expect(packRows([])).toEqual({ columns: [], cells: [], same: {} });
  });
});
