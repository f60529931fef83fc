import { FIGURE_OF } from '../image';
import {
  gatherValues,
  meanOf,
  oneSideInterval,
  unknownInterval,
  type Interval,
} from '../../statistics/stats';
import { groupBy, type Print, type Row, type StudyIndex } from '../../model/study';

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

/** The key of a figure on photos: `artefact/measure/light`, of a feature with `/feature`. */
export const photoFigureKey = (
  artefactId: string,
  { measure, feature }: Pick<MeasureRow, 'measure' | 'feature'>,
  light: string,
): string => `${artefactId}/${measure}/${light}${feature === null ? '' : `/${feature}`}`;

/**
 * Figures on photos of every contender, by `artefact/measure/light`, those of a feature by
 * `artefact/measure/light/feature`.
 */
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
    const key = photoFigureKey(print.artefact_id, row, light);
    return [{ row, print, contender: print.contender_id, key, photo }];
  });
  const byContender = groupBy(placed, (one) => one.contender);
  return Object.fromEntries(
    contenders.map(({ contender_id }) => [
      contender_id,
      Object.fromEntries(
        [...groupBy(byContender.get(contender_id) ?? [], (one) => one.key)].map(([key, own]) => {
          const sessions = new Set(own.map((one) => one.photo?.session ?? null));
          return [key, figureOf(index, own, sessions.size > 1, alpha)];
        }),
      ),
    ]),
  );
}

function figureOf(
  index: StudyIndex,
  own: readonly { row: MeasureRow; print: Print }[],
  isOfSessions: boolean,
  alpha: number,
): PhotoFigure {
  const known = own.flatMap((one) => {
    const value = valueOf(one.row);
    return value === null ? [] : [{ ...one, value }];
  });
  const isRinging = own[0]?.row.measure === 'ringing';
  const specimens = [...groupBy(known, (one) => one.row.specimen_id).values()];
  const prints = groupBy(specimens, ([first]) => first?.print);
  const values = gatherValues(
    [...prints].map(([print, group]) => [
      print ? index.stratumOf(print) : '',
      meanOf(group, (measures) => meanOf(measures, (one) => one.value)),
    ]),
  );
  const left = own.length - known.length;
  const hasRinging = (measures: readonly { row: MeasureRow }[]) =>
    measures.some((one) => one.row.found === 'true');
  return {
    prints: prints.size,
    specimens: specimens.length,
    found: isRinging ? specimens.filter(hasRinging).length : null,
    by_specimen: specimens.map((measures) => ({
      specimen_id: measures[0]?.row.specimen_id ?? '',
      value: meanOf(measures, (one) => one.value),
      found: !isRinging || hasRinging(measures),
    })),
    figure:
      values.size === 0
        ? unknownInterval('no measure has a value')
        : oneSideInterval(values, alpha),
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
