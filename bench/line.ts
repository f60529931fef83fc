/** A line of what was measured. */
export interface Line {
  what: string;
  figure: string;
  bar: string;
  isMet: boolean;
}

export const median = (values: readonly number[]): number => {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.floor(sorted.length / 2)] ?? NaN;
};
