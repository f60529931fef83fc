// Time spread over values, as `distribution.ts` of the reader has it; here bins lie in memory as
// records of four numbers: mass, moment, part and step.

const MOST_BINS: i32 = 200_000;
const FIRST_BINS: i32 = 2048;
const BIN: usize = 32;
const MOMENT: usize = 8;
const PART: usize = 16;
const STEP: usize = 24;

/** Two of filament, then two for each role: commanded and reached. */
const bins = memory.data(4 * 64, 16);
const sizes = memory.data(4 * 64, 16);
const maxima = memory.data(8 * 64, 16);

/** Where the bins of a distribution begin; 0 where nothing was ever put into it. */
export function binsOf(which: i32): usize {
  return <usize>load<u32>(bins + (<usize>which << 2));
}

/** How many bins it has; one record more is there for the last step. */
export function binCount(which: i32): i32 {
  return load<i32>(sizes + (<usize>which << 2));
}

/** The highest value in it. */
export function highestOf(which: i32): f64 {
  return load<f64>(maxima + (<usize>which << 3));
}

function widen(which: i32, bin: i32): void {
  const before = binCount(which);
  let size = before > 0 ? before : FIRST_BINS;
  while (size <= bin) size *= 2;
  const bytes = (<usize>size + 1) * BIN;
  const to = heap.alloc(bytes);
  memory.fill(to, 0, bytes);
  if (before > 0) memory.copy(to, binsOf(which), (<usize>before + 1) * BIN);
  store<u32>(bins + (<usize>which << 2), <u32>to);
  store<i32>(sizes + (<usize>which << 2), size);
}

// @ts-ignore: decorator
@inline
function recordOf(which: i32, at: f64): usize {
  // No value is below 0, and one beyond all whole numbers is the highest of them.
  let bin = <i32>at;
  if (bin >= MOST_BINS) bin = MOST_BINS - 1;
  if (bin >= binCount(which)) widen(which, bin);
  return binsOf(which) + <usize>bin * BIN;
}

// @ts-ignore: decorator
@inline
function add(address: usize, value: f64): void {
  store<f64>(address, load<f64>(address) + value);
}

// @ts-ignore: decorator
@inline
function raise(which: i32, value: f64): void {
  const address = maxima + (<usize>which << 3);
  if (value > load<f64>(address)) store<f64>(address, value);
}

/** Time spent at one value. @param perUnit how many bins there are to a unit */
export function addPoint(which: i32, perUnit: f64, value: f64, time: f64): void {
  const record = recordOf(which, value * perUnit + 1e-9);
  add(record, time);
  add(record + MOMENT, time * value);
  raise(which, value);
}

// @ts-ignore: decorator
@inline
function addStep(which: i32, at: f64, density: f64): void {
  const record = recordOf(which, at);
  const bin = <f64>((record - binsOf(which)) / BIN);
  let within = at - bin;
  if (within > 1) within = 1;
  add(record + PART, density * (1 - within));
  add(record + BIN + STEP, density);
}

/** Time spread evenly from one value to a higher one. */
export function addSpread(which: i32, perUnit: f64, low: f64, high: f64, time: f64): void {
  const from = low * perUnit;
  const to = high * perUnit;
  if (to - from < 1e-9) {
    addPoint(which, perUnit, low, time);
    return;
  }
  const density = time / (to - from);
  addStep(which, from, density);
  addStep(which, to, -density);
  raise(which, high);
}
