import { tellLine, type LineHandler, type Lines, LONGEST_LINE } from '../lines';
import type { Compiled } from './compiled';

const LINE_FEED = 10;
/** Of a line that is too long so much is kept: more than the longest that is read, and its line end. */
const KEPT_OF_LONG = LONGEST_LINE + 2;

/**
 * Splits a stream of bytes into lines in the compiled loop's own memory. Plain moves are read and executed there; of
 * every other line it is told.
 */
export class HotLines implements Lines {
  /** Bytes so far. */
  bytes = 0;
  readonly #input: number;
  readonly #room: number;
  #memory: Uint8Array;
  /** Bytes at the head of the input that are no whole line yet. */
  #waiting = 0;
  #isCut = false;

  constructor(
    readonly compiled: Compiled,
    readonly onLine: LineHandler,
  ) {
    this.#input = compiled.input.value;
    this.#room = compiled.room.value;
    this.#memory = new Uint8Array(compiled.memory.buffer);
  }

  /** Lines so far; an unterminated last line counts. */
  get lines(): number {
    return this.compiled.lines.value;
  }

  push(chunk: Uint8Array): void {
    this.bytes += chunk.length;
    for (let from = 0; from < chunk.length;) {
      if (this.#isCut) {
        // The rest of a line that is too long is passed over.
        const feed = chunk.indexOf(LINE_FEED, from);
        if (feed < 0) return;
        from = feed;
      }
      const taken = Math.min(this.#room - this.#waiting, chunk.length - from);
      this.#view().set(chunk.subarray(from, from + taken), this.#input + this.#waiting);
      this.#waiting += taken;
      from += taken;
      this.#read();
    }
  }

  end(): void {
    if (this.#waiting === 0) return;
    this.#view()[this.#input + this.#waiting] = LINE_FEED;
    this.#waiting += 1;
    this.#read();
  }

  /** Memory that has grown is another. */
  #view(): Uint8Array {
    if (this.#memory.length === 0) this.#memory = new Uint8Array(this.compiled.memory.buffer);
    return this.#memory;
  }

  #read(): void {
    const { compiled } = this;
    const end = this.#input + this.#waiting;
    let at = this.#input;
    for (;;) {
      at = compiled.run(at, end);
      if (compiled.lineEnd.value === 0) break;
      tellLine(
        { bytes: this.#view(), start: compiled.lineStart.value, end: compiled.lineEnd.value },
        compiled.lines.value,
        this.#isCut,
        this.onLine,
      );
      this.#isCut = false;
    }
    const left = end - at;
    this.#isCut ||= left > KEPT_OF_LONG;
    this.#waiting = Math.min(left, KEPT_OF_LONG);
    if (at > this.#input) this.#view().copyWithin(this.#input, at, at + this.#waiting);
  }
}
