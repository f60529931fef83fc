import Papa from 'papaparse';
import { describe, expect, it } from 'vitest';
import { csvText } from '.';

const cells = (isForSpreadsheets: boolean, ...row: (string | number | null)[]) =>
  Papa.parse<string[]>(csvText([row], { isForSpreadsheets })).data[0];

describe('CSV', () => {
  it('for spreadsheets has nothing in it that they would compute, over any number of lines', () => {
    const sent = ['=1+1', '+A1', '-A1', '@SUM(A1)', '\tx', '=1\n+cmd', '\r=2', 'plain'];
    expect(cells(true, ...sent)).toEqual([
      "'=1+1",
      "'+A1",
      "'-A1",
      "'@SUM(A1)",
      "'\tx",
      "'=1\n+cmd",
      "'\r=2",
      'plain',
    ]);
  });

  it('leaves numbers as they are, and is empty for what is not known', () => {
    expect(cells(true, '-0.05', '+3', '-1e-7', -2, null)).toEqual([
      '-0.05',
      '+3',
      '-1e-7',
      '-2',
      '',
    ]);
  });

  it('for programs is what it was', () => {
    expect(cells(false, '=1+1', 'a,"b"')).toEqual(['=1+1', 'a,"b"']);
    expect(csvText([['a'], ['b']], { isForSpreadsheets: false })).toBe('a\r\nb\r\n');
  });
});
