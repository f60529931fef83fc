import type { FigureWords } from '../../core/answers/figure-names';
import { photoFigureKey } from '../../core/measures/surface';
import { figureWords } from '../../core/answers/figure-names';
import { listTables } from '../../data';
import type { App } from '../app';
import { figureNames } from './figure-names';
import type { StudyFrame } from './frame';

/** What the page of the question offers besides the study's record. */
export interface QuestionPage {
  photoFigures: (Pick<FigureWords, 'label' | 'unit' | 'factor'> & { key: string })[];
  /** By contender: what its profile states. */
  settings: Record<string, Record<string, string>>;
}

/** Which figures on photos there are, and what each contender's profile states. */
export async function questionPage(app: App, { studyId, meta }: StudyFrame): Promise<QuestionPage> {
  const tables = await listTables(app.db, studyId, [
    'photo_measures',
    'photos',
    'specimens',
    'prints',
    'contenders',
    'profile_settings',
  ]);
  const names = await figureNames(app, studyId, '');
  const lights = new Map(tables.photos.map((row) => [`${row.specimen_id} ${row.path}`, row.light]));
  const printOf = new Map(tables.specimens.map((row) => [row.specimen_id, row.print_id]));
  const artefactOf = new Map(tables.prints.map((row) => [row.print_id, row.artefact_id]));
  const measured = tables.photo_measures.flatMap((row) => {
    const { specimen_id, path } = row;
    const artefact = artefactOf.get(printOf.get(specimen_id) ?? '');
    const light = lights.get(`${specimen_id} ${path}`) ?? 'unknown';
    return artefact === undefined ? [] : [`photo:${photoFigureKey(artefact, row, light)}`];
  });
  const stated = Object.keys(meta.smallest_difference).filter((key) => key.startsWith('photo:'));
  return {
    photoFigures: [...new Set([...stated, ...measured])].sort().map((key) => {
      const { label, unit, factor } = figureWords(key, names);
      return { key, label, unit, factor };
    }),
    settings: Object.fromEntries(
      tables.contenders.map(({ contender_id, profile_id }) => [
        contender_id,
        Object.fromEntries(
          tables.profile_settings
            .filter((row) => row.profile_id === profile_id)
            .map(({ key, value }) => [key, value]),
        ),
      ]),
    ),
  };
}
