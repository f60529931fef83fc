import { factNames, type Facts, type ItemKind } from './kinds';

/** A fact that is not today what it was in a study. */
export interface FactDifference {
  /** The fact's column. */
  name: string;
  /** What it was in the study; null where it was not known. */
  was: string | number | null;
  /** What it is today. */
  is: string | number | null;
}

/**
 * What differs between a thing as it was in a study and as it is today. What is not known on either
 * side is no difference.
 */
export const factDifferences = (kind: ItemKind, then: Facts, today: Facts): FactDifference[] =>
  factNames(kind).flatMap((name) => {
    const [was, is] = [then[name] ?? null, today[name] ?? null];
    return was === null || is === null || was === is ? [] : [{ name, was, is }];
  });

/**
 * A thing's facts after a row of it was changed in a study: as long as the two were in step they stay
 * in step, and what was not known is learnt. Null where nothing is another.
 *
 * @param before the row's facts before the change; null of a new row
 */
export function keptInStep(
  kind: ItemKind,
  before: Facts | null,
  after: Facts,
  today: Facts,
): Facts | null {
  const changed = factNames(kind).filter((name) => {
    const [was, is, own] = [before?.[name] ?? null, after[name] ?? null, today[name] ?? null];
    if (is === null || is === own) return false;
    return own === null || (before !== null && was === own);
  });
  if (changed.length === 0) return null;
  return { ...today, ...Object.fromEntries(changed.map((name) => [name, after[name] ?? null])) };
}
