/** Why a line is broken; such a line is not executed at all. */
export type BrokenReason =
  | 'control characters'
  | 'no command'
  | 'a word without a number'
  | 'a wrong checksum'
  | 'an impossible arc'
  | 'too long a line';

const G = 71;
const M = 77;
const N = 78;
const T = 84;

/** Commands whose words matter here, by letter · 1000 + number; all others are only counted. */
const READ = new Set([
  ...[0, 1, 2, 3, 4, 10, 11, 20, 21, 28, 90, 91, 92].map((n) => G * 1000 + n),
  ...[82, 83, 104, 106, 107, 109, 140, 190].map((n) => M * 1000 + n),
  ...[201, 203, 204, 205, 207, 220, 221, 600].map((n) => M * 1000 + n),
]);

/** Whether a byte ends a word: a blank, the next letter, a comment, a checksum, or what breaks the line. */
const endsWord = (byte: number): boolean =>
  byte <= 32 ||
  (byte >= 65 && byte <= 90) ||
  (byte >= 97 && byte <= 122) ||
  byte === 59 ||
  byte === 40 ||
  byte === 42 ||
  byte === 127;

const isDigit = (byte: number): boolean => byte >= 48 && byte <= 57;

/**
 * Reads the words of one line without making objects: the values lie in arrays that are used again
 * for every line. A letter always begins a word; numbers have no exponent.
 */
export class WordReader {
  /** Values of A…Z. */
  readonly values = new Float64Array(26);
  /** Bit n is set where letter n is there. */
  present = 0;
  /** Bit n is set where letter n is there without a finite number. */
  empty = 0;
  /** Letter of the command (71 G, 77 M, 84 T), 0 where the line has none. */
  letter = 0;
  /** Number of the command. */
  code = 0;
  /** Whether the command is one whose words were read. */
  isKnown = false;
  broken: BrokenReason | null = null;
  /** Where the line's comment begins (after its semicolon), or -1. */
  comment = -1;
  #at = 0;
  #isNumber = false;

  /** Whether a word is there with a number. */
  has(letter: number): boolean {
    return (this.present & ~this.empty & (1 << (letter - 65))) !== 0;
  }

  /** The value of a word that is there. */
  value(letter: number): number {
    return this.values[letter - 65] ?? 0;
  }

  /**
   * Reads a line.
   *
   * @returns true where there is something to execute
   */
  read(bytes: Uint8Array, start: number, end: number): boolean {
    this.present = 0;
    this.empty = 0;
    this.letter = 0;
    this.code = 0;
    this.isKnown = false;
    this.broken = null;
    this.comment = -1;
    let at = start;
    let isNumbered = false;
    let hasWords = false;
    while (at < end) {
      const byte = bytes[at]!;
      if (byte === 32 || byte === 9) {
        at += 1;
        continue;
      }
      if (byte < 32 || byte === 127) {
        this.broken = 'control characters';
        return false;
      }
      if (byte === 59) {
        this.comment = at + 1;
        this.#checkControl(bytes, at, end);
        break;
      }
      if (byte === 40) {
        let close = at;
        while (close < end && bytes[close] !== 41) close += 1;
        this.#checkControl(bytes, at, close);
        at = close + 1;
        continue;
      }
      if (byte === 42) {
        this.#checkSum(bytes, start, at, end);
        this.#checkControl(bytes, at, end);
        break;
      }
      if (byte === 37 && !hasWords) {
        // A tape mark.
        at += 1;
        continue;
      }
      const letter = byte >= 97 && byte <= 122 ? byte - 32 : byte;
      if (letter < 65 || letter > 90) {
        hasWords = true;
        at += 1;
        continue;
      }
      const value = this.#number(bytes, at + 1, end);
      at = this.#at;
      if (letter === N && !hasWords && this.letter === 0 && this.#isNumber) {
        isNumbered = true;
        continue;
      }
      hasWords = true;
      if (this.letter === 0 && (letter === G || letter === M || letter === T)) {
        this.letter = letter;
        this.code = value;
        if (letter === T) {
          this.isKnown = this.#isNumber;
          if (!this.#isNumber) this.letter = 0;
        } else if (this.#isNumber) this.isKnown = READ.has(letter * 1000 + value);
        else this.letter = 0;
        if (!this.isKnown && this.letter !== 0) {
          this.#passOver(bytes, start, at, end, isNumbered);
          break;
        }
        continue;
      }
      const bit = 1 << (letter - 65);
      this.present |= bit;
      this.values[letter - 65] = value;
      if (!this.#isNumber || !Number.isFinite(value)) this.empty |= bit;
    }
    if (this.broken) return false;
    if (this.letter === 0) {
      if (hasWords) this.broken = 'no command';
      return false;
    }
    return true;
  }

  /** Reads a number after a letter; `#at` is where it ends, `#isNumber` whether there was one. */
  #number(bytes: Uint8Array, from: number, end: number): number {
    let at = from;
    while (at < end && (bytes[at] === 32 || bytes[at] === 9)) at += 1;
    const first = at;
    let sign = 1;
    if (bytes[at] === 45) {
      sign = -1;
      at += 1;
    } else if (bytes[at] === 43) at += 1;
    let digits = 0;
    let mantissa = 0;
    let scale = 1;
    for (; at < end; at += 1) {
      const digit = bytes[at]! - 48;
      if (digit < 0 || digit > 9) break;
      mantissa = mantissa * 10 + digit;
      digits += 1;
    }
    if (at < end && bytes[at] === 46) {
      at += 1;
      for (; at < end; at += 1) {
        const digit = bytes[at]! - 48;
        if (digit < 0 || digit > 9) break;
        mantissa = mantissa * 10 + digit;
        scale *= 10;
        digits += 1;
      }
    }
    // All of the word must be its number: what stands right behind it belongs to it too.
    const last = at;
    while (at < end && !endsWord(bytes[at]!)) at += 1;
    this.#isNumber = digits > 0 && at === last;
    if (!this.#isNumber) {
      this.#at = digits === 0 && at === last ? from : at;
      return 0;
    }
    this.#at = at;
    // Up to 15 digits are exact as a whole number over a power of ten; more go the slow way.
    if (digits <= 15) return (sign * mantissa) / scale;
    let text = '';
    for (let index = first; index < at; index += 1) text += String.fromCharCode(bytes[index] ?? 48);
    return Number(text);
  }

  /** Passes over the words of a command that is only counted; a numbered line's checksum counts. */
  #passOver(
    bytes: Uint8Array,
    start: number,
    from: number,
    end: number,
    isNumbered: boolean,
  ): void {
    this.#checkControl(bytes, from, end);
    if (!isNumbered) return;
    for (let at = end - 1; at > from; at -= 1) {
      const byte = bytes[at] ?? 0;
      if (byte === 42) this.#checkSum(bytes, start, at, end);
      if (!isDigit(byte) && byte !== 32) return;
    }
  }

  #checkSum(bytes: Uint8Array, start: number, star: number, end: number): void {
    let at = start;
    while (bytes[at] === 32 || bytes[at] === 9) at += 1;
    let sum = 0;
    for (; at < star; at += 1) sum ^= bytes[at] ?? 0;
    const stated = this.#number(bytes, star + 1, end);
    if (!this.#isNumber || stated !== sum) this.broken = 'a wrong checksum';
  }

  #checkControl(bytes: Uint8Array, start: number, end: number): void {
    for (let at = start; at < end; at += 1) {
      const byte = bytes[at] ?? 0;
      if ((byte < 32 && byte !== 9) || byte === 127) {
        this.broken = 'control characters';
        return;
      }
    }
  }
}
