import { FIGURE_OF } from '../image';
import { meanOf, oneSideInterval, unknownInterval, type Interval } from '../stats';
import { groupBy, type Row, type StudyIndex } from '../study';

/** A figure on photos of a contender's artefact, in one light. */
export interface PhotoFigure {
  /** Prints with a figure. */
  prints: number;
  /** Specimens with a figure. */
  specimens: number;
  /** Of ringing: specimens on which any was found; else null. */
  found: number | null;
  /** The figure over prints. */
  figure: Interval;
  /** Each specimen's own figure; of ringing 0 where none was found. */
  by_specimen: { specimen_id: string; value: number; found: boolean }[];
  /** What is left out, and what to know, in words. */
  notes: string[];
}

type MeasureRow = Row<'photo_measures'>;

/** Figures on photos of every contender, by `artefact/measure/light`. */
export function photosOfAll(
  index: StudyIndex,
  alpha: number,
): Record<string, Record<string, PhotoFigure>> {
  const { contenders, photos, photo_measures } = index.study.tables;
  const photoKey = (row: { specimen_id: string; path: string }) => `${row.specimen_id} ${row.path}`;
  const photoOf = new Map(photos.map((row) => [photoKey(row), row]));
  const placed = photo_measures.flatMap((row) => {
    const specimen = index.specimens.get(row.specimen_id);
    const print = specimen && index.prints.get(specimen.print_id);
    if (!print) return [];
    const photo = photoOf.get(photoKey(row));
    const light = photo?.light ?? 'unknown';
    const key = `${print.artefact_id}/${row.measure}/${light}`;
    return [{ row, print_id: print.print_id, contender: print.contender_id, key, photo }];
  });
  const byContender = groupBy(placed, (one) => one.contender);
  return Object.fromEntries(
    contenders.map(({ contender_id }) => [
      contender_id,
      Object.fromEntries(
        [...groupBy(byContender.get(contender_id) ?? [], (one) => one.key)].map(([key, own]) => {
          const sessions = new Set(own.map((one) => one.photo?.session ?? null));
          return [key, figureOf(key, own, sessions.size > 1, alpha)];
        }),
      ),
    ]),
  );
}

function figureOf(
  key: string,
  own: readonly { row: MeasureRow; print_id: string }[],
  isOfSessions: boolean,
  alpha: number,
): PhotoFigure {
  const known = own.flatMap((one) => {
    const value = valueOf(one.row);
    return value === null ? [] : [{ ...one, value }];
  });
  const isRinging = own[0]?.row.measure === 'ringing';
  const specimens = [...groupBy(known, (one) => one.row.specimen_id).values()];
  const prints = [...groupBy(specimens, ([first]) => first?.print_id ?? '').values()];
  const values = prints.map((group) =>
    meanOf(group, (measures) => meanOf(measures, (one) => one.value)),
  );
  const left = own.length - known.length;
  const hasRinging = (measures: readonly { row: MeasureRow }[]) =>
    measures.some((one) => one.row.found === 'true');
  return {
    prints: prints.length,
    specimens: specimens.length,
    found: isRinging ? specimens.filter(hasRinging).length : null,
    by_specimen: specimens.map((measures) => ({
      specimen_id: measures[0]?.row.specimen_id ?? '',
      value: meanOf(measures, (one) => one.value),
      found: !isRinging || hasRinging(measures),
    })),
    figure:
      values.length === 0
        ? unknownInterval('no measure has a value')
        : oneSideInterval(new Map([[key, values]]), alpha),
    notes: [
      ...(left > 0 ? [`measures without a value, left out: ${left}`] : []),
      ...(isOfSessions ? ['photos of different sessions are put together'] : []),
    ],
  };
}

/** The figure of a measure: 0 where it was looked for and not found; null where it is not known. */
function valueOf({ measure, value, value_key, found }: MeasureRow): number | null {
  if (found === 'false' && (measure === 'ringing' || value === null)) return 0;
  if (value_key !== null && value_key !== FIGURE_OF[measure]) return null;
  return value;
}
