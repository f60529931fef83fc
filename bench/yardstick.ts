import { median, type Line } from './line';
import { plainReaderRate, syntheticSlicedFile } from './toolpath';

/** Megabytes of lines that make up the yardstick. */
const MB = 10;
/** What they take on the quiet machine that the bars are meant for, ms: 23 MB/s. */
const QUIET_MS = (1000 * MB) / 23;

/** Says what took how long, and whether it was quick enough for a machine of this speed. */
export type Say = (what: string, ms: number, barMs: number | null) => Line;

/**
 * Takes the yardstick: reading lines by text functions, with nothing modelled. What is measured
 * beside it is told as a multiple, so that it does not matter how quick the machine is just then;
 * bars are brought to its speed in the same way.
 */
export function takeYardstick(): { line: Line; say: Say } {
  const file = syntheticSlicedFile(MB * 1e6);
  const rates = Array.from({ length: 5 }, () => plainReaderRate(file));
  const unit = (1000 * MB) / median(rates.slice(2));
  const say: Say = (what, ms, barMs) => {
    const isMet = barMs === null || ms / unit < barMs / QUIET_MS;
    return {
      what,
      figure: `${ms.toFixed(ms < 100 ? 1 : 0)} ms`,
      ratio: (ms / unit).toFixed(ms / unit < 0.1 ? 3 : 2),
      bar: barMs === null ? '' : `< ${(barMs / QUIET_MS).toFixed(2)} (${barMs} ms)`,
      isMet,
    };
  };
  return { line: say(`plain lines, ${MB} MB: the yardstick of what follows`, unit, null), say };
}
