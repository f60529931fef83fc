import { describe, expect, it } from 'vitest';
import { guessRole, readForeign, type ForeignContext } from './index';

const context: ForeignContext = {
  specimens: [
    { id: 's-1', code: 'K7-001', artefact: 'block' },
    { id: 's-2', code: 'K7-002', artefact: 'block' },
  ],
  dimensions: [
    { artefact: 'block', id: 'x4', name: 'x4 length' },
    { artefact: 'block', id: 'hole-8', name: 'hole 8' },
  ],
  instruments: [{ id: 'caliper-1', name: 'Caliper 1' }],
};

describe('a foreign table', () => {
  it('of a row a specimen is read by the heads of its columns', () => {
    const heads = ['Code', 'x4 length [mm]', 'HOLE-8', 'remark'];
    const roles = heads.map((head) => guessRole(head, context));
    expect(roles).toEqual([
      { is: 'specimen' },
      { is: 'values', dimension: 'x4' },
      { is: 'values', dimension: 'hole-8' },
      { is: 'nothing' },
    ]);
    const rows = [
      ['k7-001', '80,12', '7.81', 'fine'],
      ['K7-002', '80.09 mm', '', ''],
      ['', '', '', ''],
    ];
    const { readings, faults } = readForeign({ heads, rows }, roles, 'mm', context);
    expect(faults).toEqual([]);
    expect(readings.map((one) => [one.specimen_id, one.dimension_id, one.value_mm])).toEqual([
      ['s-1', 'x4', 80.12],
      ['s-1', 'hole-8', 7.81],
      ['s-2', 'x4', 80.09],
    ]);
  });

  it('of a row a reading is read by its roles, in inches', () => {
    const heads = ['sample', 'feature', 'actual', 'by', 'gauge'];
    const roles = heads.map((head) => guessRole(head, context));
    const rows = [['K7-002', 'hole 8', '0.3150', 'KM', 'caliper 1']];
    expect(readForeign({ heads, rows }, roles, 'inch', context)).toEqual({
      readings: [
        {
          specimen_id: 's-2',
          dimension_id: 'hole-8',
          value_mm: 8.001,
          operator: 'KM',
          instrument_id: 'caliper-1',
          row: 1,
        },
      ],
      faults: [],
    });
  });

  it('tells every cell that it cannot read, by row and column', () => {
    const heads = ['code', 'x4', 'instrument'];
    const roles = heads.map((head) => guessRole(head, context));
    const rows = [
      ['K7-009', '80', ''],
      ['K7-001', 'n/a', ''],
      ['K7-001', '-3', ''],
      ['K7-001', '80', 'ruler'],
      ['K7-001', '1,234.5', ''],
    ];
    const { readings, faults } = readForeign({ heads, rows }, roles, 'mm', context);
    // A sign between thousands is understood.
    expect(readings.map(({ value_mm }) => value_mm)).toEqual([1234.5]);
    expect(faults.map(({ row, column }) => `${row} ${column}`)).toEqual([
      '1 code',
      '2 x4',
      '3 x4',
      '4 instrument',
    ]);
  });

  it('of thousands of rows is read in a moment, however many specimens there are', () => {
    const specimens = Array.from({ length: 20_000 }, (_, at) => ({
      id: `s-${at}`,
      code: `C-${at}`,
      artefact: 'block',
    }));
    const rows = Array.from({ length: 3000 }, (_, at) => [`c ${19_999 - at}`, '80.1']);
    const table = { heads: ['code', 'x4'], rows };
    const roles = table.heads.map((head) => guessRole(head, context));
    const { readings } = readForeign(table, roles, 'mm', { ...context, specimens });
    expect(readings).toHaveLength(3000);
    expect(readings[0]?.specimen_id).toBe('s-19999');
  });

  it('asks for what its roles lack', () => {
    const table = { heads: ['a', 'b'], rows: [['1', '2']] };
    const nothing = { is: 'nothing' } as const;
    const ask = (roles: Parameters<typeof readForeign>[1]) =>
      readForeign(table, roles, 'mm', context).faults[0]?.message;
    expect(ask([nothing, nothing])).toContain('names the specimen');
    expect(ask([{ is: 'specimen' }, nothing])).toContain('which columns hold');
  });
});
