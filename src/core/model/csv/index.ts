import Papa from 'papaparse';

type Cell = string | number | null;

/** What a spreadsheet would compute: it begins as a formula does and is no plain number. */
const FORMULA = /^[=+\-@\t\r]/;
const NUMBER = /^[-+]?(?:\d+\.?\d*|\.\d+)(?:e[-+]?\d+)?$/i;

/** A text that a spreadsheet shows and never computes, however many lines it has. */
const harmless = (cell: Cell): Cell =>
  typeof cell === 'string' && FORMULA.test(cell) && !NUMBER.test(cell) ? `'${cell}` : cell;

interface CsvOptions {
  /** Whether a spreadsheet is to open it: what begins as a formula is escaped. Programs read it as it is. */
  isForSpreadsheets: boolean;
}

/**
 * Writes rows as RFC 4180: CRLF after each line, quotes where they are needed, empty for null.
 *
 * @example csvText([['a', '=1+1\nb']], { isForSpreadsheets: true }) // 'a,"\'=1+1\nb"\r\n'
 */
export function csvText(
  rows: readonly (readonly Cell[])[],
  { isForSpreadsheets }: CsvOptions,
): string {
  const lines = rows.map((row) => (isForSpreadsheets ? row.map(harmless) : [...row]));
  return `${Papa.unparse(lines, { newline: '\r\n' })}\r\n`;
}
