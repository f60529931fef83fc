import { instant, type Row } from '../study';

type Dated = Pick<Row<'prints'>, 'started_at' | 'firmware'>;

/** Where prints name another firmware than the one before, by the time they were started. */
export function firmwareTurns(
  prints: readonly Dated[],
): { at: string; firmware: string; before: string }[] {
  const timed = prints
    .flatMap(({ started_at: at, firmware }) =>
      at !== null && firmware !== null ? [{ at, firmware }] : [],
    )
    .sort((a, b) => instant(a.at) - instant(b.at));
  return timed.flatMap(({ at, firmware }, place) => {
    const before = timed[place - 1]?.firmware;
    return before !== undefined && before !== firmware ? [{ at, firmware, before }] : [];
  });
}

/** Prints whose firmware is not their machine's any more; where either is not known, none. */
export const outdatedPrints = (
  prints: readonly Pick<Row<'prints'>, 'print_id' | 'firmware'>[],
  machine: string | null,
): { print_id: string; firmware: string }[] =>
  prints.flatMap(({ print_id, firmware }) =>
    firmware !== null && machine !== null && firmware !== machine ? [{ print_id, firmware }] : [],
  );

/**
 * The version that a change of firmware names: the last one of its words, or all of them where
 * they are one word with a figure in it.
 *
 * @example firmwareIn('1.9.2 → 2.4, by the memory card') // '2.4'
 * @returns null where no version is named
 */
export function firmwareIn(what: string): string | null {
  const versions = [...what.matchAll(/(?<![\w.])v?(\d+(?:\.\d+)+[\w.-]*)/g)].map(
    (found) => found[1],
  );
  const [only, another] = what.trim().split(/\s+/);
  return versions.at(-1) ?? (only && another === undefined && /\d/.test(only) ? only : null);
}
