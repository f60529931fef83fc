import { compiledCode, compiledExports } from '../../../model/compiled';
import type { Bench, Filters, Pass, Work } from '../filters';
import { CODE } from './code';

/** The compiled loops: their source is in `assembly/`, where they are described. */
interface Compiled {
  readonly memory: WebAssembly.Memory;
  filterDown(
    source: number,
    sourceApart: number,
    tapsApart: number,
    kernel: number,
    taps: number,
    to: number,
    toApart: number,
    count: number,
    lanes: number,
  ): void;
  turn(source: number, width: number, height: number, to: number): void;
}

/** Values in the memory of the compiled loops: the place of the first, in bytes, and how many there are. */
interface Block {
  at: number;
  length: number;
}

const PAGE = 65_536;
/** More than so many values are worked on in the plain way: they stand there several times. */
const MOST = 4e6;

/** Compiled once, with a memory that is used again; null where this place may not compile. */
let bench: CompiledBench | null | undefined;

function compile(): CompiledBench | null {
  const code = compiledCode(CODE);
  if (!code) return null;
  return new CompiledBench(compiledExports<Compiled>(code));
}

/** Filters by compiled loops that take several places at once; null where there can be none. */
export function quickFilters(values: number): Filters | null {
  if (bench === undefined) bench = compile();
  if (!bench || values > MOST) return null;
  const own = bench;
  return (work) => own.do(work);
}

/** Where values lie while they are worked on: one after another. */
class CompiledBench implements Bench<Block> {
  #end = 0;

  constructor(readonly code: Compiled) {}

  /** Does one piece of work; nothing of it is left then but its result. */
  do<Result>(work: Work<Result>): Result {
    this.#end = 0;
    return work(this);
  }

  room = (length: number): Block => {
    const block = this.#place(length);
    this.values(block).fill(0);
    return block;
  };

  #place(length: number): Block {
    const block = { at: this.#end, length };
    this.#end += 8 * length;
    const { memory } = this.code;
    const lacking = Math.ceil(this.#end / PAGE) - memory.buffer.byteLength / PAGE;
    if (lacking > 0) memory.grow(lacking);
    return block;
  }

  values = ({ at, length }: Block): Float64Array =>
    new Float64Array(this.code.memory.buffer, at, length);

  filtered = (block: Block, width: number, pass: Pass): Block => {
    const padded = this.#padded(block, width, pass);
    const out = this.room(pass.points * width);
    const kernels = pass.rows.map(({ kernel }) => this.#put(kernel));
    pass.rows.forEach(({ kernel, of, to, count }, at) => {
      this.code.filterDown(
        padded.at + 8 * of.from * width,
        of.apart * width,
        of.apart * width,
        kernels[at]?.at ?? 0,
        kernel.length,
        out.at + 8 * to.from * width,
        to.apart * width,
        count,
        width,
      );
    });
    return out;
  };

  /** Values with the zeros that a pass wants before and behind them. */
  #padded(block: Block, width: number, { before, padded }: Pass): Block {
    const whole = this.#place(padded * width);
    const values = this.values(whole);
    const [first, end] = [before * width, before * width + block.length];
    values.fill(0, 0, first);
    values.set(this.values(block), first);
    values.fill(0, end);
    return whole;
  }

  #put(values: Float64Array): Block {
    const block = this.#place(values.length);
    this.values(block).set(values);
    return block;
  }

  turned = (block: Block, width: number): Block => {
    const out = this.#place(block.length);
    this.code.turn(block.at, width, block.length / width, out.at);
    return out;
  };

  kept = (steps: () => Block): Block => {
    const begun = this.#end;
    const made = steps();
    const to = { at: begun, length: made.length };
    this.values(to).set(this.values(made));
    this.#end = begun + 8 * made.length;
    return to;
  };
}
