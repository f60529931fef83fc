/** How many prints of each side would settle a comparison. */
export interface PrintsAsked {
  /** Whichever way it lies; null where it is settled, or no number can be said. */
  prints_needed: number | null;
  /** If the difference is as large as it looks. */
  prints_as_seen?: number | null;
}

/** The small number first, the large one as the price of certainty; null where there is none. */
export function describePrintsNeeded({
  prints_needed,
  prints_as_seen = null,
}: PrintsAsked): string | null {
  if (prints_needed === null) return null;
  if (prints_as_seen === null || prints_as_seen === prints_needed) {
    return `${prints_needed} prints each to be sure either way`;
  }
  return `${prints_as_seen} prints each if it is as large as it looks, ${prints_needed} to be sure either way`;
}

/** The first number alone, where space is short; null where there is none. */
export function fewestPrintsAsked({
  prints_needed,
  prints_as_seen = null,
}: PrintsAsked): number | null {
  return prints_needed === null ? null : (prints_as_seen ?? prints_needed);
}
