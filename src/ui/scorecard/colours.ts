/** Fills of a stacked bar, by the place of the criterion: shades that differ in lightness too. */
const FILLS = [
  ['var(--plum)', 1],
  ['var(--plum)', 0.72],
  ['var(--plum)', 0.44],
  ['var(--ink-2)', 1],
  ['var(--ink-2)', 0.6],
  ['var(--large)', 0.9],
  ['var(--large)', 0.5],
  ['var(--small)', 0.9],
  ['var(--small)', 0.5],
  ['var(--ink)', 0.85],
] as const;

/** The fill of a criterion's part. */
export const fillOf = (at: number): { fill: string; fillOpacity: number } => {
  const [fill, fillOpacity] = FILLS[at % FILLS.length] ?? FILLS[0];
  return { fill, fillOpacity };
};
