const LINE_FEED = 10;
const RETURN = 13;

/** Told of every line: its bytes without its end, and its number. */
export type LineHandler = (bytes: Uint8Array, start: number, end: number, line: number) => void;

/** The longest line that is kept; what is longer is cut there, so that memory stays bounded. */
const LONGEST_LINE = 64 * 1024 * 1024;

/** Splits a stream of bytes into lines, by LF or CRLF; lines may span chunks and be of any length. */
export class LineSplitter {
  /** Lines so far; an unterminated last line counts. */
  lines = 0;
  /** Bytes so far. */
  bytes = 0;
  #kept = new Uint8Array(4096);
  #length = 0;

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
    const isReturn = end > start && bytes[end - 1] === RETURN;
    this.onLine(bytes, start, isReturn ? end - 1 : end, this.lines);
  }

  #keep(part: Uint8Array): void {
    const room = LONGEST_LINE - this.#length;
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
