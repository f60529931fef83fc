/** A row of results and what they are made of: `to[i] += Σ kernel[j]·of[i + j]`, both in strides. */
export interface Row {
  kernel: Float64Array;
  of: { from: number; apart: number };
  to: { from: number; apart: number };
  count: number;
}

/** What is done to a line: zeros are put before and behind it, then its rows are added up. */
export interface Pass {
  length: number;
  before: number;
  padded: number;
  rows: readonly Row[];
  /** How many values there are then. */
  points: number;
}

/** What can be done to values on a bench; they lie there, and not with whoever works on them. */
export interface Bench<Block> {
  /** Room for so many values, all 0. */
  room: (length: number) => Block;
  /** What stands in a block, to be read and written until the next step. */
  values: (block: Block) => Float64Array;
  /** A pass down the columns of values that stand row by row, so many a row. */
  filtered: (block: Block, width: number, pass: Pass) => Block;
  /** Values with rows and columns exchanged. */
  turned: (block: Block, width: number) => Block;
  /** What some steps make, without what they needed in between. */
  kept: (steps: () => Block) => Block;
}

/** Work that is done on any bench. */
export type Work<Result> = <Block>(bench: Bench<Block>) => Result;

/** Does work on a bench of its kind. */
export type Filters = <Result>(work: Work<Result>) => Result;

/** The steps in plain TypeScript: what quicker ones are measured by. */
export const plainFilters: Filters = (work) =>
  work<Float64Array>({
    room: (length) => new Float64Array(length),
    values: (block) => block,
    filtered,
    turned,
    kept: (steps) => steps(),
  });

/** Values with rows and columns exchanged: column after column from the left. */
export function turned(values: Float64Array, width: number): Float64Array {
  const height = values.length / width;
  const out = new Float64Array(values.length);
  const block = 32;
  for (let top = 0; top < height; top += block) {
    const bottom = Math.min(height, top + block);
    for (let left = 0; left < width; left += block) {
      const right = Math.min(width, left + block);
      for (let x = left; x < right; x += 1) {
        for (let y = top; y < bottom; y += 1) out[x * height + y] = values[y * width + x] ?? 0;
      }
    }
  }
  return out;
}

function filtered(values: Float64Array, width: number, pass: Pass): Float64Array {
  const out = new Float64Array(pass.points * width);
  const whole = new Float64Array(pass.padded * width);
  whole.set(values, pass.before * width);
  for (const { kernel, of, to, count } of pass.rows) {
    const apart = of.apart * width;
    for (let row = 0; row < count; row += 1) {
      const first = (of.from + row * of.apart) * width;
      const goal = (to.from + row * to.apart) * width;
      for (let x = 0; x < width; x += 1) {
        let sum = out[goal + x] ?? 0;
        for (let tap = 0, at = first + x; tap < kernel.length; tap += 1, at += apart) {
          sum += (kernel[tap] ?? 0) * (whole[at] ?? 0);
        }
        out[goal + x] = sum;
      }
    }
  }
  return out;
}
