/** A line of what was measured. */
export interface Line {
  what: string;
  figure: string;
  /** The figure as a multiple of what the yardstick took in the same run. */
  ratio?: string;
  bar: string;
  isMet: boolean;
}

export const median = (values: readonly number[]): number => {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.floor(sorted.length / 2)] ?? NaN;
};

/** The value below which a share of others lies. */
export const percentileOf = (values: readonly number[], share: number): number => {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.floor(share * sorted.length)] ?? NaN;
};

export const p95 = (values: readonly number[]): number => percentileOf(values, 0.95);

export async function timed(work: () => unknown): Promise<number> {
  const started = performance.now();
  await work();
  return performance.now() - started;
}

export async function repeated(times: number, work: () => unknown): Promise<number[]> {
  const all: number[] = [];
  for (let at = 0; at < times; at += 1) all.push(await timed(work));
  return all;
}
