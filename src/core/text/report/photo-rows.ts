import { lightInWords } from '../../answers/figure-names';
import { photoFigureKey } from '../../measures/surface';
import { groupBy, inWords } from '../../model/study';
import { chartId } from './charts';
import { inUnit } from './figure';
import type { PhotoRow } from './model';
import { addressOfCriterion } from '../../answers/figure-address';
import type { Printing } from './printing';

/** More places than this are looked into where they are, and not in a report. */
const MOST_PHOTO_ROWS = 12;

/** Photos of one place, one of each contender: where measures were taken on registered photos. */
export function photoRows(context: Printing): PhotoRow[] {
  const { names } = context;
  const { tables } = context.study;
  const photoOf = new Map(tables.photos.map((row) => [`${row.specimen_id} ${row.path}`, row]));
  const marksOf = groupBy(tables.photo_marks, (row) => `${row.specimen_id} ${row.path}`);
  const placed = tables.photo_measures.flatMap((row) => {
    const photo = photoOf.get(`${row.specimen_id} ${row.path}`);
    const print = context.index.prints.get(
      context.index.specimens.get(row.specimen_id)?.print_id ?? '',
    );
    const isTied = (marksOf.get(`${row.specimen_id} ${row.path}`)?.length ?? 0) >= 2;
    if (!photo || !print || !isTied || row.unit !== 'mm') return [];
    const light = photo.light ?? 'unknown';
    const key = photoFigureKey(print.artefact_id, row, light);
    return [{ row, photo, contender: print.contender_id, artefact: print.artefact_id, light, key }];
  });
  return [...groupBy(placed, (one) => one.key)]
    .flatMap(([key, group]): PhotoRow[] => {
      const [first] = group;
      const ofContender = groupBy(group, (one) => one.contender);
      if (!first || ofContender.size < 2) return [];
      const { x, y, w, h } = first.row;
      const words = context.wordsOf(`photo:${key}`);
      const frames = context.marks.flatMap(({ contender_id: contender }) => {
        const own = [...(ofContender.get(contender) ?? [])].sort((a, b) =>
          a.row.specimen_id < b.row.specimen_id ? -1 : 1,
        )[0];
        if (!own) return [];
        const address = addressOfCriterion(`photo:${key}`, contender, '');
        return [
          {
            contender,
            specimen_id: own.row.specimen_id,
            source: own.row.path,
            file: `photos/${chartId(key)}-${chartId(contender)}.jpg`,
            figure: context.print(address, inUnit(words.unit, words.digits, words.factor)),
          },
        ];
      });
      const artefact = names.artefacts[first.artefact] ?? first.artefact;
      const side = first.photo.view === null ? '' : `, ${inWords(first.photo.view)}`;
      return [
        {
          id: chartId(key),
          title: `${artefact}${side}`,
          where:
            `${context.wordsOf(`photo:${key}`).label.split(',')[0]} · ${lightInWords(first.light)} · ` +
            `${w.toFixed(0)} × ${h.toFixed(0)} mm from ${x.toFixed(0)}, ${y.toFixed(0)} · contrast ` +
            'raised alike',
          box: { x, y, w, h },
          frames,
        },
      ];
    })
    .sort((a, b) => b.frames.length - a.frames.length || (a.id < b.id ? -1 : 1))
    .slice(0, MOST_PHOTO_ROWS);
}
