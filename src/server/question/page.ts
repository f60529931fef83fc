import type { FigureWords } from '../../core/answers/figure-names';
import { photoFigureKey } from '../../core/measures/surface';
import { figureWords } from '../../core/answers/figure-names';
import { proposedDifferences, type DifferenceProposal } from '../../core/answers/plan';
import { medianOrNull } from '../../core/statistics/stats';
import { listTables } from '../../data';
import type { App } from '../app';
import { figureNames } from '../study/figure-names';
import { resultsOf } from '../results/results';
import type { StudyFrame } from '../study/frame';

/** What the page of the question offers besides the study's record. */
export interface QuestionPage {
  /** Figures on photos; `group` is the artefact's name. */
  photoFigures: (Pick<FigureWords, 'label' | 'unit' | 'factor'> & { key: string; group: string })[];
  /** By contender: what its profile states. */
  settings: Record<string, Record<string, string>>;
  /** Values for the smallest differences, with what they are taken from. */
  proposals: DifferenceProposal[];
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
    'instruments',
    'dimensions',
  ]);
  const { instruments } = await resultsOf(app, { studyId, reference: null }, ['instruments']);
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
      const artefact = key.slice('photo:'.length).split('/')[0] ?? '';
      return { key, label, unit, factor, group: names.artefacts[artefact] ?? artefact };
    }),
    proposals: proposedDifferences({
      instruments: tables.instruments.map(({ instrument_id, name, resolution_mm }) => ({
        name,
        resolution_mm,
        repeatability_mm: instruments?.[instrument_id]?.repeatability_mm ?? null,
      })),
      dimensions: tables.dimensions,
      print_s: medianOrNull(tables.prints.flatMap(({ print_s }) => print_s ?? [])),
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
