const LINE_FEED = 10;
const RETURN = 13;

/** Told of every line: its bytes without its end, its number, and whether it is too long to be read. */
export type LineHandler = (
  bytes: Uint8Array,
  start: number,
  end: number,
  line: number,
  isTooLong: boolean,
) => void;

/** The longest line that is read, bytes; a longer one is cut there. A comment may be cut, a command not. */
export const LONGEST_LINE = 1024 * 1024;

const MARK = [0xef, 0xbb, 0xbf];

function isComment(bytes: Uint8Array, start: number, end: number): boolean {
  let at = start;
  while (at < end && (bytes[at] === 32 || bytes[at] === 9)) at += 1;
  return bytes[at] === 59;
}

/** Takes a file piece by piece and tells of its lines. */
export interface Lines {
  /** Lines so far; an unterminated last line counts. */
  readonly lines: number;
  /** Bytes so far. */
  readonly bytes: number;
  push(chunk: Uint8Array): void;
  end(): void;
}

/**
 * Tells of a line: without its end, without the mark before the first one, cut where it is too long.
 *
 * @param at where it lies, without its line feed
 * @param isCut whether more of it was there than was kept
 */
export function tellLine(
  { bytes, start, end }: { bytes: Uint8Array; start: number; end: number },
  line: number,
  isCut: boolean,
  onLine: LineHandler,
): void {
  const isMarked = line === 1 && MARK.every((byte, at) => bytes[start + at] === byte);
  const first = isMarked ? start + MARK.length : start;
  const isReturn = end > first && bytes[end - 1] === RETURN;
  const last = isReturn ? end - 1 : end;
  const isLong = isCut || last - first > LONGEST_LINE;
  const isTooLong = isLong && !isComment(bytes, first, last);
  onLine(bytes, first, isLong ? Math.min(last, first + LONGEST_LINE) : last, line, isTooLong);
}

/**
 * Splits a stream of bytes into lines, by LF or CRLF; lines may span chunks. A byte order mark at the
 * head is left out of the first line.
 */
export class LineSplitter implements Lines {
  /** Lines so far; an unterminated last line counts. */
  lines = 0;
  /** Bytes so far. */
  bytes = 0;
  #kept = new Uint8Array(4096);
  #length = 0;
  #isCut = false;

  constructor(readonly onLine: LineHandler) {}

  push(chunk: Uint8Array): void {
    this.bytes += chunk.length;
    let start = 0;
    if (this.#length > 0) {
      const feed = chunk.indexOf(LINE_FEED);
      if (feed < 0) {
        this.#keep(chunk);
        return;
      }
      this.#keep(chunk.subarray(0, feed));
      this.#tell(this.#kept, 0, this.#length);
      this.#length = 0;
      this.#isCut = false;
      start = feed + 1;
    }
    for (;;) {
      const feed = chunk.indexOf(LINE_FEED, start);
      if (feed < 0) break;
      this.#tell(chunk, start, feed);
      start = feed + 1;
    }
    if (start < chunk.length) this.#keep(chunk.subarray(start));
  }

  end(): void {
    if (this.#length > 0) this.#tell(this.#kept, 0, this.#length);
    this.#length = 0;
  }

  #tell(bytes: Uint8Array, start: number, end: number): void {
    this.lines += 1;
    tellLine({ bytes, start, end }, this.lines, this.#isCut, this.onLine);
  }

  #keep(part: Uint8Array): void {
    const room = LONGEST_LINE + 1 - this.#length;
    if (part.length > room) this.#isCut = true;
    const taken = part.length > room ? part.subarray(0, room) : part;
    const needed = this.#length + taken.length;
    if (needed > this.#kept.length) {
      const grown = new Uint8Array(Math.max(needed, this.#kept.length * 2));
      grown.set(this.#kept.subarray(0, this.#length));
      this.#kept = grown;
    }
    this.#kept.set(taken, this.#length);
    this.#length = needed;
  }
}
