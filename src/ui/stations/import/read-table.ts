import Papa from 'papaparse';
import type { ForeignTable } from '../../../core/model/table-import';

/** More than this is no table of readings. */
const MOST_BYTES = 10 * 1024 * 1024;

/** Text of a spreadsheet, copied or saved, as a table: comma, semicolon or tab, whatever it uses. */
export function tableOfText(text: string): ForeignTable {
  const { data } = Papa.parse<string[]>(text.replace(/^\uFEFF/, '').trim(), {
    skipEmptyLines: 'greedy',
  });
  return tableOf(data);
}

function tableOf([heads, ...rows]: readonly (readonly string[])[]): ForeignTable {
  if (!heads || rows.length === 0) {
    throw new Error('A table needs a row of heads and at least one row below it.');
  }
  return { heads, rows };
}

/** Reads a CSV or XLSX file in the browser. @throws Error with what is wrong, in words */
export async function tableOfFile(file: File): Promise<ForeignTable> {
  if (file.size > MOST_BYTES) throw new Error(`${file.name} is over 10 MB.`);
  const head = new Uint8Array(await file.slice(0, 4).arrayBuffer());
  if (head[0] === 0x50 && head[1] === 0x4b) {
    const { readSheet } = await import('read-excel-file/browser');
    const rows = await readSheet(file).catch(() => {
      throw new Error(`${file.name} cannot be read as a spreadsheet.`);
    });
    return tableOf(rows.map((row) => row.map((cell) => (cell == null ? '' : String(cell)))));
  }
  if (head[0] === 0xd0 && head[1] === 0xcf) {
    throw new Error(`${file.name} is of an old format: save it as .xlsx or .csv.`);
  }
  return tableOfText(await file.text());
}
