import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { columnsOf } from './columns';
import { cellText, openSentStudy, rowsOfText, sentColumns } from './sent-study';
import { emptyTables, type Study } from './study';

const text = fc.oneof(
  fc.constantFrom('\\N', '\\', '\\t', 'a\tb', 'a\nb', '\r', '"', 'ä ✓ 🖨'),
  fc.string({ unit: 'grapheme', minLength: 1 }),
);

const valueOf = (cell: string): fc.Arbitrary<number | string> =>
  cell === 'number'
    ? fc.double({ noNaN: true, noDefaultInfinity: true })
    : cell === 'whole'
      ? fc.nat()
      : text;

const rows = fc.array(
  fc.record({
    ...Object.fromEntries(
      columnsOf('readings').map(({ name, cell }) => [name, fc.option(valueOf(cell))]),
    ),
    extras: fc.option(fc.dictionary(fc.string(), text), { nil: undefined }),
  }),
);

const lineOf = (row: object, place: number): string =>
  [place, ...sentColumns('readings').map((name) => cellText((row as never)[name]))].join('\t');

/** Rows as a database copies them out, which lie in some order. */
const written = (list: readonly object[], order = [...list.keys()]): Uint8Array =>
  new TextEncoder().encode(order.map((at) => `${lineOf(list[at] ?? {}, 7 + 2 * at)}\n`).join(''));

const negativeZeroGone = (row: object): object =>
  Object.fromEntries(
    Object.entries(row)
      .filter(([, value]) => value !== undefined)
      .map(([name, value]) => [name, value === 0 ? 0 : (value as unknown)]),
  );

describe('a study that is sent', () => {
  it('has the rows that it had', () => {
    fc.assert(
      fc.property(rows, (list) => {
        expect(rowsOfText('readings', written(list))).toEqual(list.map(negativeZeroGone));
      }),
    );
  });

  it('has its rows in their order, however they lie where they are stored', () => {
    const lying = rows.chain((list) =>
      fc.tuple(
        fc.constant(list),
        fc.shuffledSubarray([...list.keys()], { minLength: list.length }),
      ),
    );
    fc.assert(
      fc.property(lying, ([list, order]) => {
        expect(rowsOfText('readings', written(list, order))).toEqual(list.map(negativeZeroGone));
      }),
    );
  });

  it('is read as a database copies it out', () => {
    const line = '12\tS-1\tx\t1\t20.005\t\\N\tK\\\\M\\t\\n\t2026-03-02\t\\N\t{"a": "b\\\\\\\\c"}\n';
    const names = columnsOf('readings').map((column) => column.name);
    expect(names).toEqual([
      'specimen_id',
      'dimension_id',
      'trial',
      'value_mm',
      'instrument_id',
      'operator',
      'at',
      'superseded_at',
    ]);
    expect(rowsOfText('readings', new TextEncoder().encode(line))).toEqual([
      {
        specimen_id: 'S-1',
        dimension_id: 'x',
        trial: 1,
        value_mm: 20.005,
        instrument_id: null,
        operator: 'K\\M\t\n',
        at: '2026-03-02',
        superseded_at: null,
        extras: { a: 'b\\c' },
      },
    ]);
  });

  it('has empty tables where nothing was sent', () => {
    const meta = { name: 'a' } as Study['meta'];
    expect(openSentStudy({ meta, present: new Set(), texts: {} })).toEqual({
      meta,
      present: new Set(),
      tables: emptyTables(),
    });
  });
});
