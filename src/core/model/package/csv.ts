import Papa from 'papaparse';
import { csvText } from '../csv';
import { quote } from '../study';
import type { FaultList } from './fault';

/** A row of a file as text, and the line at which it begins. */
export interface TextRow {
  line: number;
  cells: string[];
}

/** More lines than this no table of a study has. */
const MOST_LINES = 1_000_000;
/** More columns than this no table has. */
const MOST_COLUMNS = 1000;

export interface TextTable {
  header: string[];
  rows: TextRow[];
  /** Whether all of the file could be read; rows may be missing where it is false. */
  complete: boolean;
  /** Whether some bytes were not UTF-8 and stand as U+FFFD. */
  damaged: boolean;
}

/**
 * Reads an RFC 4180 file: UTF-8 with or without byte order mark, CRLF or LF, quoted line breaks,
 * with or without a line end at the end. What is wrong is added to `faults`; null where nothing
 * of the file can be used.
 */
export function readCsv(file: string, bytes: Uint8Array, faults: FaultList): TextTable | null {
  const { text, damaged } = decode(file, bytes, faults);
  if (text.trim() === '') {
    faults.add(file, 1, '-', 'the file is empty: its first line must name the columns');
    return null;
  }
  const feeds = countLineFeeds(text, 0, text.length);
  if (feeds > MOST_LINES) {
    faults.add(file, MOST_LINES + 1, '-', `has more than ${MOST_LINES} lines: it was not read`);
    return null;
  }
  const rows: TextRow[] = [];
  let complete = true;
  let width = 0;
  let line = 1;
  let cursor = 0;
  const { content, newline } = withOneLineEnd(text, feeds);
  Papa.parse<string[]>(content, {
    delimiter: ',',
    newline,
    step: ({ data, errors, meta }, parser) => {
      const atEnd = meta.cursor >= content.length;
      const isTail = atEnd && cursor >= content.length && data.length === 1 && data[0] === '';
      if (errors.length > 0) {
        const unclosed = errors.some((error) => error.code === 'MissingQuotes');
        faults.add(
          file,
          line,
          '-',
          unclosed
            ? `a quote is opened in ${quote(data.at(-1) ?? '')} and never closed: close it, or double it ` +
                'where it is part of the value'
            : `text follows a closing quote in ${quote(data.at(-1) ?? '')}: double a quote that is part of the value`,
        );
        complete = false;
      } else if (!isTail) {
        const isBlank = width > 1 && data.length === 1 && data[0] === '';
        if (isBlank) faults.add(file, line, '-', blankLine(width));
        else rows.push({ line, cells: data });
        width ||= data.length;
        if (width > MOST_COLUMNS) {
          faults.add(file, line, '-', `has more than ${MOST_COLUMNS} columns: it was not read`);
          complete = false;
          parser.abort();
        }
      }
      line += countLineFeeds(content, cursor, meta.cursor);
      cursor = meta.cursor;
    },
  });
  const header = rows.shift()?.cells;
  if (!header) return null;
  return { header, rows, complete, damaged };
}

const blankLine = (width: number): string =>
  `the line is empty, but the header has ${width} cells: take the line out`;

/** Writes rows as RFC 4180: CRLF after each line, quotes where they are needed, empty for null. */
export function writeCsv(
  header: readonly string[],
  rows: readonly (readonly (string | number | null)[])[],
): string {
  return csvText([header, ...rows], { isForSpreadsheets: false });
}

function decode(
  file: string,
  bytes: Uint8Array,
  faults: FaultList,
): { text: string; damaged: boolean } {
  try {
    return { text: new TextDecoder('utf-8', { fatal: true }).decode(bytes), damaged: false };
  } catch {
    const strict = new TextDecoder('utf-8', { fatal: true });
    let line = 1;
    for (let start = 0; start < bytes.length; line += 1) {
      const end = bytes.indexOf(0x0a, start);
      const slice = bytes.subarray(start, end < 0 ? bytes.length : end);
      try {
        strict.decode(slice);
      } catch {
        const shown = quote(new TextDecoder().decode(slice));
        faults.add(file, line, '-', `the line ${shown} is not UTF-8: save the file as UTF-8`);
      }
      if (end < 0) break;
      start = end + 1;
    }
    return { text: new TextDecoder().decode(bytes), damaged: true };
  }
}

/** Brings a file that mixes CRLF and LF between its rows to LF; quoted line breaks stay. */
function withOneLineEnd(text: string, feeds: number): { content: string; newline: '\n' | '\r\n' } {
  let pairs = 0;
  for (let at = text.indexOf('\r\n'); at >= 0; at = text.indexOf('\r\n', at + 2)) pairs += 1;
  if (pairs === 0) return { content: text, newline: '\n' };
  if (pairs === feeds) return { content: text, newline: '\r\n' };
  let content = '';
  let isQuoted = false;
  let from = 0;
  for (let at = 0; at < text.length; at += 1) {
    const code = text.charCodeAt(at);
    if (code === 0x22) isQuoted = !isQuoted;
    else if (code === 0x0d && !isQuoted && text.charCodeAt(at + 1) === 0x0a) {
      content += text.slice(from, at);
      from = at + 1;
    }
  }
  return { content: content + text.slice(from), newline: '\n' };
}

function countLineFeeds(text: string, from: number, to: number): number {
  let found = 0;
  for (let at = text.indexOf('\n', from); at >= 0 && at < to; at = text.indexOf('\n', at + 1)) {
    found += 1;
  }
  return found;
}
