import type { Settings } from '../model/study';
import { ANNOTATIONS, type AnnotationTable } from './annotations';
import { LineSplitter, tellLine, type LineHandler } from './lines';
import { Notes } from './notes';

const LINE_FEED = 10;
const SEMICOLON = 59;
const EQUALS = 61;
const SPACE = 32;
const TAB = 9;

/**
 * Reads only the settings that a sliced file states, many times faster than its motion: a setting has
 * an equals sign, and hardly any other line does.
 */
export class StatedSettings {
  readonly #notes: Notes;
  readonly #lines: LineSplitter;
  readonly #onLine: LineHandler;

  constructor(annotations: AnnotationTable = ANNOTATIONS) {
    this.#notes = new Notes(annotations);
    this.#onLine = (bytes, start, end, _, isTooLong) => {
      if (isTooLong) return;
      let at = start;
      while (at < end && (bytes[at] === SPACE || bytes[at] === TAB)) at += 1;
      if (at < end && bytes[at] === SEMICOLON) this.#notes.read(bytes, at + 1, end);
    };
    this.#lines = new LineSplitter(this.#onLine);
  }

  /** Takes the next piece of the file's text. */
  push(chunk: Uint8Array): void {
    // The line that the piece before has begun, whole lines, and the line that the next piece ends.
    const first = chunk.indexOf(LINE_FEED) + 1;
    const last = chunk.lastIndexOf(LINE_FEED) + 1;
    this.#lines.push(chunk.subarray(0, first));
    this.#readWhole(chunk, first, last);
    this.#lines.push(chunk.subarray(last));
  }

  /** Ends the file; its settings by their normalised keys. */
  end(): Settings {
    this.#lines.end();
    return this.#notes.settings;
  }

  /** Reads of whole lines those with an equals sign. */
  #readWhole(bytes: Uint8Array, from: number, to: number): void {
    let equals = bytes.indexOf(EQUALS, from);
    while (equals >= 0 && equals < to) {
      const start = bytes.lastIndexOf(LINE_FEED, equals) + 1;
      const end = bytes.indexOf(LINE_FEED, equals);
      tellLine({ bytes, start, end }, 0, false, this.#onLine);
      equals = bytes.indexOf(EQUALS, end);
    }
  }
}
