import type { App } from '../app';
import { glanceRows, type GlanceRow } from '../../core/answers/glance';
import type { ResultParts } from '../../core/answers/results';
import { describeGlance } from '../../core/text/phrasing';
import { figureWords } from '../../core/answers/figure-names';
import type { ResultsPage } from './page';
import { figureNames } from '../study/figure-names';

/** What the page of everything at a glance shows. */
export interface GlancePage {
  rows: GlanceRow[];
  said: string[];
  open: string[];
}

type Needed = 'criteria' | 'differences' | 'accuracy' | 'fairness';

/** Every figure of everyone who is shown, and what it comes to in words. */
export async function glancePage(
  app: App,
  {
    frame,
    results,
    marks,
    reference,
  }: Pick<ResultsPage<Needed>, 'frame' | 'marks' | 'reference'> & {
    results: Pick<ResultParts, Needed>;
  },
): Promise<GlancePage> {
  const { criteria, differences, accuracy, fairness } = results;
  const names = await figureNames(app, frame.studyId, frame.meta.cost?.currency ?? '');
  const contenders = marks.map((mark) => mark.contender_id);
  const rows = glanceRows({
    contenders,
    reference,
    criteria,
    differences,
    fairness,
    names,
    classes: Object.fromEntries(
      contenders.map((id) => [id, accuracy?.[id]?.it_grade ?? null] as const),
    ),
    smallest: frame.meta.smallest_difference,
  });
  const nameOf = (id: string) => {
    const mark = marks.find((one) => one.contender_id === id);
    return mark ? `${mark.machineName} ${mark.variant}` : id;
  };
  // Figures on photos stand last: they are many, and each is of one place.
  const isOfPhotos = (key: string) => Number(key.startsWith('photo:'));
  const keys = Object.keys(differences).sort((a, b) => isOfPhotos(a) - isOfPhotos(b));
  const figures = keys.map((key) => ({
    label: figureWords(key, names).label,
    rows: (differences[key] ?? []).filter((row) => contenders.includes(row.contender)),
  }));
  const { said, open } =
    reference === null
      ? { said: ['Choose a reference first: verdicts compare every contender with it.'], open: [] }
      : describeGlance(nameOf(reference), figures, nameOf);
  return { rows, said, open };
}
