// Reads lines that are plain moves straight from their bytes, and executes them.
//
// A plain line is `G0` to `G3` with words X Y Z E F I J R, each with a number of at most fifteen digits; blanks or
// none between them; perhaps a line number and a checksum; perhaps a comment behind it. Every other line is left to
// the reader outside, which knows all of them and says what is right: nothing of a line is executed here before all
// of it is known to be plain and sound.
import { arc, HAS_E, HAS_F, HAS_I, HAS_J, HAS_R, HAS_X, HAS_Y, HAS_Z, line } from './motion';

const LF: u32 = 10;
const CR: u32 = 13;
const MOST_DIGITS: i32 = 15;
const LONGEST_LINE: usize = 1024 * 1024;
/** Room for the longest line that is read, and for a piece of the file behind it. */
const ROOM: usize = 1024 * 1024 + 16 + 256 * 1024;

export const input: usize = heap.alloc(1024 * 1024 + 16 + 256 * 1024 + 16);
export const room: usize = ROOM;

/** Lines so far. */
export let lines: i32 = 0;
/** Where the line lies that is left to the reader outside. */
export let lineStart: usize = 0;
export let lineEnd: usize = 0;

const POWERS = memory.data<f64>([
  1, 1e1, 1e2, 1e3, 1e4, 1e5, 1e6, 1e7, 1e8, 1e9, 1e10, 1e11, 1e12, 1e13, 1e14, 1e15,
]);
const values = memory.data(8 * 8, 16);

/** Which word a letter begins: its place among X Y Z E F I J R; 255 for others. Letters count from A. */
const PLACES = memory.data<u8>([
  255, 255, 255, 255, 3, 4, 255, 255, 5, 6, 255, 255, 255, 255, 255, 255, 255, 7, 255, 255, 255,
  255, 255, 0, 1, 2, 255, 255, 255, 255, 255, 255,
]);

// @ts-ignore: decorator
@inline
function endsWord(byte: u32): bool {
  return (
    byte <= 32 ||
    (byte | 32) - 97 < 26 ||
    byte === 59 ||
    byte === 40 ||
    byte === 42 ||
    byte === 127
  );
}

// @ts-ignore: decorator
@inline
function value(place: usize): f64 {
  return load<f64>(values + (place << 3));
}

/** Where a line ends that begins at `at`: its line feed. */
function feedFrom(at: usize): usize {
  let here = at;
  while (load<u8>(here) !== LF) here += 1;
  return here;
}

/**
 * Reads from one address to another. Returns where it stopped: at the head of a line that is not all there; or,
 * where `lineEnd` is not 0, behind a line that is left to the reader outside.
 */
export function run(from: usize, to: usize): usize {
  let start = from;
  // Whatever is looked for is found: behind the last byte stands a line feed that is none of the file's.
  store<u8>(to, LF);
  lineEnd = 0;
  while (true) {
    const end = plain(start, to);
    if (end === 0) {
      const feed = feedFrom(start);
      if (feed >= to) return start;
      lines += 1;
      lineStart = start;
      lineEnd = feed;
      return feed + 1;
    }
    if (end > to) return start;
    lines += 1;
    start = end;
  }
}

/**
 * Reads and executes a line. Returns where the next one begins; 0 where this one is not plain; an address behind `to`
 * where it is not all there.
 */
// @ts-ignore: decorator
@inline
function plain(start: usize, to: usize): usize {
  let at = start;
  let byte: u32 = load<u8>(at);
  while (byte === 32 || byte === 9) {
    at += 1;
    byte = load<u8>(at);
  }
  const first = at;
  if ((byte | 32) === 110) {
    // A line number.
    at += 1;
    byte = load<u8>(at);
    const digits = at;
    while (byte - 48 < 10) {
      at += 1;
      byte = load<u8>(at);
    }
    if (at === digits || !endsWord(byte)) return 0;
    while (byte === 32 || byte === 9) {
      at += 1;
      byte = load<u8>(at);
    }
  }
  if ((byte | 32) !== 103) return 0;
  const code = <u32>load<u8>(at + 1) - 48;
  if (code > 3) return 0;
  at += 2;
  byte = load<u8>(at);
  if (!endsWord(byte)) return 0;
  let has: i32 = 0;
  for (;;) {
    if (byte === 32 || byte === 9) {
      at += 1;
      byte = load<u8>(at);
      continue;
    }
    const letter = (byte | 32) - 97;
    if (letter >= 26) break;
    const place = load<u8>(PLACES + letter);
    if (place === 255) return 0;
    at += 1;
    byte = load<u8>(at);
    let isNegative = false;
    if (byte === 45) {
      isNegative = true;
      at += 1;
      byte = load<u8>(at);
    } else if (byte === 43) {
      at += 1;
      byte = load<u8>(at);
    }
    let mantissa: i64 = 0;
    const whole = at;
    let digit = byte - 48;
    while (digit < 10) {
      mantissa = mantissa * 10 + digit;
      at += 1;
      byte = load<u8>(at);
      digit = byte - 48;
    }
    let digits = <i32>(at - whole);
    let decimals: i32 = 0;
    if (byte === 46) {
      at += 1;
      byte = load<u8>(at);
      digit = byte - 48;
      const fraction = at;
      while (digit < 10) {
        mantissa = mantissa * 10 + digit;
        at += 1;
        byte = load<u8>(at);
        digit = byte - 48;
      }
      decimals = <i32>(at - fraction);
      digits += decimals;
    }
    if (digits === 0 || digits > MOST_DIGITS || !endsWord(byte)) return 0;
    // Up to 15 digits are exact as a whole number over a power of ten.
    const size = <f64>mantissa / load<f64>(POWERS + (<usize>decimals << 3));
    store<f64>(values + (<usize>place << 3), isNegative ? -size : size);
    has |= 1 << place;
  }
  if (byte === 42) {
    let sum: u32 = 0;
    for (let before = first; before < at; before += 1) sum ^= load<u8>(before);
    at += 1;
    byte = load<u8>(at);
    let stated: u32 = 0;
    const digits = at;
    while (byte - 48 < 10 && at - digits < 4) {
      stated = stated * 10 + (byte - 48);
      at += 1;
      byte = load<u8>(at);
    }
    if (at === digits || stated !== sum) return 0;
    while (byte === 32 || byte === 9) {
      at += 1;
      byte = load<u8>(at);
    }
    if (byte !== LF && byte !== CR) return 0;
  } else if (byte === 59) {
    do {
      at += 1;
      byte = load<u8>(at);
    } while ((byte >= 32 && byte !== 127) || byte === 9);
  }
  if (byte === CR) {
    at += 1;
    byte = load<u8>(at);
  }
  if (byte !== LF) return 0;
  if (at >= to) return to + 1;
  if (at - start > LONGEST_LINE) return 0;
  if (code < 2) line(has, value(0), value(1), value(2), value(3), value(4));
  else if (!arc(code === 2, has, value(0), value(1), value(2), value(3), value(4), value(5), value(6), value(7))) {
    return 0;
  }
  return at + 1;
}
