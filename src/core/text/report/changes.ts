import type { FoundFigure } from '../../answers/results';
import type { PrintedFigure } from './figure';
import type { MovedFigure, RevisionChanges, RevisionFigures } from './model';

/** What a figure without an interval may move by: nothing that is printed. */
const PRINTED = 1e-9;

/**
 * Whether a figure has moved by more than was known of it: its verdict is another, or its value lies
 * beyond the ends that it had.
 */
function hasMoved(then: FoundFigure, now: FoundFigure | null): MovedFigure['why'] | null {
  if (!now) return 'value';
  if (then.word !== now.word) return 'verdict';
  if (then.value === null || now.value === null) return then.value === now.value ? null : 'value';
  const room = PRINTED * Math.max(1, Math.abs(then.value));
  const [low, high] = [then.low ?? then.value, then.high ?? then.value];
  return now.value < low - room || now.value > high + room ? 'value' : null;
}

/** What stands in a revision that did not in an earlier one. */
export function changesBetween(then: RevisionFigures, now: RevisionFigures): RevisionChanges {
  const before = byAddress(then.figures);
  const after = byAddress(now.figures);
  const both = [...before].flatMap(([address, old]) => {
    const own = after.get(address);
    return own ? [{ address, old, own }] : [];
  });
  const figures = both.flatMap(({ address, old, own }): MovedFigure[] => {
    const why = hasMoved(old, own);
    // A count has no interval: it is another as soon as more was printed, which the data say.
    const isKnownWithin = old.low !== null && old.high !== null;
    if (why === null || (why === 'value' && !isKnownWithin)) return [];
    return [{ address, label: own.label, then: said(old), now: said(own), why }];
  });
  const tables = new Set([...Object.keys(then.data.tables), ...Object.keys(now.data.tables)]);
  return {
    from: then.number,
    to: now.number,
    figures,
    others: both.filter(
      ({ old, own }) => old.low === null && old.word === own.word && old.printed !== own.printed,
    ).length,
    added: [...after.keys()].filter((address) => !before.has(address)).length,
    gone: [...before.keys()].filter((address) => !after.has(address)).length,
    words: wordsBetween(then, now),
    data: [...tables]
      .map((table) => ({
        table,
        then: then.data.tables[table] ?? 0,
        now: now.data.tables[table] ?? 0,
      }))
      .filter((one) => one.then !== one.now)
      .sort((a, b) => (a.table < b.table ? -1 : 1)),
    isSameData: then.data.sha256 === now.data.sha256,
  };
}

/** The figures of a revision by their addresses; of one that is printed in several ways, the first. */
function byAddress(figures: readonly PrintedFigure[]): Map<string, PrintedFigure> {
  const found = new Map<string, PrintedFigure>();
  for (const figure of figures) {
    if (!found.has(figure.address)) found.set(figure.address, figure);
  }
  return found;
}

/** A figure and its verdict, as they were printed. */
const said = ({ printed, word }: PrintedFigure): string =>
  word === null || word.replaceAll('_', ' ') === printed
    ? printed
    : `${printed} (${word.replaceAll('_', ' ')})`;

function wordsBetween(then: RevisionFigures, now: RevisionFigures): RevisionChanges['words'] {
  const before = new Map(then.words.map((one) => [one.verdict_id, one.text]));
  const after = new Map(now.words.map((one) => [one.verdict_id, one.text]));
  return [
    ...[...before].flatMap(([id, text]): RevisionChanges['words'] => {
      const own = after.get(id);
      if (own === undefined) return [{ kind: 'gone', then: text, now: null }];
      return own === text ? [] : [{ kind: 'changed', then: text, now: own }];
    }),
    ...[...after].flatMap(([id, text]): RevisionChanges['words'] =>
      before.has(id) ? [] : [{ kind: 'added', then: null, now: text }],
    ),
  ];
}

/** A figure that a sentence was written on, as it stood then. */
export interface TiedFigure extends FoundFigure {
  address: string;
}

/** The figures of a sentence that have moved since it was written. */
export const movedTies = (
  citations: readonly TiedFigure[],
  now: (address: string) => FoundFigure | null,
): { address: string; then: FoundFigure; now: FoundFigure | null; why: MovedFigure['why'] }[] =>
  citations.flatMap((then) => {
    const found = now(then.address);
    const why = hasMoved(then, found);
    return why ? [{ address: then.address, then, now: found, why }] : [];
  });
