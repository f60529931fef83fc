import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { isPlainText } from '../study';
import { FaultList } from './fault';
import { readHistory, writeHistory, type HistoryEntry } from './history';

const bytesOf = (text: string) => new TextEncoder().encode(text);

function read(text: string) {
  const faults = new FaultList();
  const entries = readHistory(bytesOf(text), faults);
  const places = faults.report().faults.map(({ line, column }) => `${line}:${column}`);
  return { entries, places, messages: faults.report().faults.map(({ message }) => message) };
}

const HEADER = 'at,who,person,table,key,before,after\r\n';

const AT = '2026-03-02T10:00:00+01:00';

describe('the history of a study as a file', () => {
  it('comes back as it was written, whatever the rows hold', () => {
    const row = fc.dictionary(
      fc.constantFrom('a', 'value_mm', 'note'),
      fc.oneof(
        fc.string().filter(isPlainText),
        fc
          .double({ noNaN: true, noDefaultInfinity: true })
          .filter((value) => !Object.is(value, -0)),
        fc.constant(null),
      ),
    );
    const entry: fc.Arbitrary<HistoryEntry> = fc.record({
      table_name: fc.constantFrom('readings', 'prints'),
      row_key: row,
      before: fc.option(row),
      after: fc.option(row),
      who: fc.option(fc.constantFrom('lk', 'ÅB', 'a,b', '"x"')),
      person: fc.option(fc.constantFrom('Kim', 'key scale, rack 3', '"Ö"')),
      at: fc.constantFrom(AT, '2026-12-31T23:59:59Z'),
    });
    fc.assert(
      fc.property(fc.array(entry, { maxLength: 6 }), (entries) => {
        const { entries: back, places } = read(writeHistory(entries));
        expect(places).toEqual([]);
        expect(back).toEqual(entries.map((one) => JSON.parse(JSON.stringify(one)) as unknown));
      }),
    );
  });

  it('an empty cell is nobody, or a row that was not there', () => {
    expect(read(`${HEADER}${AT},,,prints,{},,"{""a"":1}"\r\n`).entries).toEqual([
      {
        at: AT,
        who: null,
        person: null,
        table_name: 'prints',
        row_key: {},
        before: null,
        after: { a: 1 },
      },
    ]);
  });

  it.each([
    ['2026-03-02,,,prints,{},,', ['2:at']],
    [`${AT},,${'K'.repeat(201)},prints,{},,`, ['2:person']],
    [`${AT},,,Prints!,{},,`, ['2:table']],
    [`${AT},,,prints,[],,`, ['2:key']],
    [`${AT},,,prints,{},{,`, ['2:before']],
    [`${AT},,,prints,{},,7`, ['2:after']],
    [`${AT},,prints,{},,`, ['2:-']],
    [`soon,,,,no,no,no`, ['2:at', '2:table', '2:key', '2:before', '2:after']],
  ])('%s is told with its place', (line, places) => {
    expect(read(`${HEADER}${line}\r\n`).places).toEqual(places);
  });

  it('other columns are no history', () => {
    const { entries, messages } = read('at,who\r\n');
    expect(entries).toEqual([]);
    expect(messages).toEqual(['must have the columns at, who, person, table, key, before, after']);
  });

  it('of a time before people signed in names nobody', () => {
    const { entries, places } = read(`at,who,table,key,before,after\r\n${AT},lk,prints,{},,\r\n`);
    expect(places).toEqual([]);
    expect(entries[0]).toMatchObject({ who: 'lk', person: null, table_name: 'prints' });
  });

  it('a control character in a value is made plain', () => {
    const [entry] = read(`${HEADER}${AT},,,prints,{},,"{""a"":""x\\u0000y""}"\r\n`).entries;
    expect(entry?.after).toEqual({ a: 'x\ufffdy' });
  });
});
