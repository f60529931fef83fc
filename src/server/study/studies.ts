import * as z from 'zod';
import { INTENTS, isPlainText, studyMetaSchema, type StudyMeta } from '../../core/model/study';
import { foundOrNull } from '../http/found';
import { addIn } from '../line-up/add';
import {
  binnedStudies,
  copyBeginning,
  deleteDemo,
  deletedDemo,
  createStudy,
  deleteStudy,
  findStudy,
  findItem,
  listRows,
  listStudies,
  metaOfRecord,
  restoreDemo,
  restoreStudy,
  shelveStudy,
  itemsOfStudy,
  transact,
  rowOrNull,
  updateStudy,
  writeStudy,
  type BinnedStudy,
  type Database,
  type StudySummary,
} from '../../data';
import type { App } from '../app';
import { RequestError } from '../http/problem';
import { checkSweep } from './sweep';

export type { BinnedStudy } from '../../data';

/** A study as a client sees it: what it is about, and which version that is. */
export type StudyAbout = StudyMeta & { row_version: number; revision: string };

/** All studies that are not deleted, the one changed last first. */
export const allStudies = (app: App): Promise<StudySummary[]> => listStudies(app.db);

/** A label of a study: a few words that a workshop sorts its studies by. */
const label = z
  .string()
  .trim()
  .min(1, 'a label needs a character')
  .max(40)
  .refine(isPlainText, 'holds a control character: remove it');

const labelsSchema = z
  .array(label)
  .max(12)
  .transform((all) => [...new Set(all)]);

/** How a study is sorted; what is not given stays as it is. */
export const shelfSchema = z.strictObject({
  isArchived: z.boolean().optional(),
  labels: labelsSchema.optional(),
});

/** Archives a study or brings it back, and labels it. @throws NotFoundError */
export const setShelf = (
  app: App,
  studyId: string,
  shelf: z.infer<typeof shelfSchema>,
): Promise<void> => shelveStudy(app.db, studyId, shelf);

/** Deletes all studies of the demo, or brings them back. @returns how many */
export const removeDemo = (app: App): Promise<number> => deleteDemo(app.db);
export const bringDemoBack = (app: App): Promise<number> => restoreDemo(app.db);

/** How many studies of the demo are deleted and can be brought back. */
export const demoInBin = (app: App): Promise<number> => deletedDemo(app.db);

/** A study to be made. */
export const newStudySchema = z.strictObject({
  study_id: z.uuid().optional(),
  title: z
    .string()
    .trim()
    .min(1, 'give the study a title')
    .max(300)
    .refine(isPlainText, 'holds a control character: take it out'),
  /** Of a study from another, that one's where it is not said. */
  intent: z.enum(INTENTS).optional(),
  /** The study whose line-up, parts, plan, cards and order of the report it takes. */
  again: z.uuid().optional(),
  /** A machine of the workshop that competes in it. */
  with: z.uuid().optional(),
  labels: labelsSchema.optional(),
});

/** What a study that is made from another takes of what that one is about. */
const takenFrom = (meta: StudyMeta): Partial<StudyMeta> => ({
  question: meta.question,
  cost: meta.cost,
  factor: meta.factor ?? null,
  farm: meta.farm ?? null,
  smallest_difference: meta.smallest_difference,
  plan: meta.plan ?? null,
  scorecard: meta.scorecard,
  scorecards: meta.scorecards ?? null,
  sweep: meta.sweep ?? null,
  report: meta.report ? { ...meta.report, frozen: undefined } : null,
});

/**
 * Makes a study: empty, or again as another one, perhaps with a machine of the workshop. One action, one
 * transaction; sent again with the same id it is made once.
 */
export async function addStudy(
  app: App,
  study_id: string,
  { title, intent, again, with: machine, labels }: z.infer<typeof newStudySchema>,
  who: string | null,
): Promise<{ study_id: string }> {
  const name = title
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '')
    .slice(0, 200);
  await transact(app.db, async (db) => {
    const before = again === undefined ? null : metaOfRecord(await findStudy(db, again));
    const isNew = (await studyOrNull(db, study_id)) === null;
    await createStudy(db, study_id, {
      name: name || 'study',
      title,
      intent: intent ?? before?.intent ?? 'machines',
      description: null,
      question: null,
      reference: null,
      cost: null,
      scorecard: null,
      created: new Date().toISOString(),
      smallest_difference: {},
      ...(before && takenFrom(before)),
    });
    if (!isNew) return;
    if (labels !== undefined) await shelveStudy(db, study_id, { labels });
    if (again !== undefined) await copyBeginning(db, again, study_id);
    if (machine !== undefined) {
      await writeStudy(db, study_id, who, async (write) => {
        const there = await itemsOfStudy(db, study_id, 'machine');
        const { uid } = await findItem(db, machine);
        if (there.some((one) => one.uid === uid)) return;
        await addIn(write, { add: 'machine', picked: { uid } });
      });
    }
  });
  return { study_id };
}

/** A study that is there already; null where none has this id. */
const studyOrNull = (db: Database, studyId: string) => foundOrNull(findStudy(db, studyId));

/** Deleted studies that can be brought back, the last first. */
export const studiesInBin = (app: App): Promise<BinnedStudy[]> => binnedStudies(app.db);

/** What a study is about. @throws NotFoundError */
export async function aboutStudy(app: App, studyId: string): Promise<StudyAbout> {
  const record = await findStudy(app.db, studyId);
  return { ...metaOfRecord(record), row_version: record.version, revision: record.revision };
}

/** A change of what a study is about, and the version that it was made from. */
export const studyChangeSchema = z.strictObject({
  version: z.number().int(),
  change: studyMetaSchema.partial().strict(),
});

/** Changes what a study is about. @throws ConflictError, RequestError */
export function changeStudy(
  app: App,
  studyId: string,
  { version, change }: z.infer<typeof studyChangeSchema>,
  who: string | null,
): Promise<StudyMeta & { row_version: number }> {
  const given = Object.fromEntries(
    Object.entries(change).filter(([, value]) => value !== undefined),
  );
  return writeStudy(app.db, studyId, who, async (write) => {
    if (typeof change.reference === 'string') {
      const key = { contender_id: change.reference };
      if (!(await rowOrNull(write.db, studyId, 'contenders', key))) {
        throw new RequestError(422, `reference ${change.reference} is no contender of this study`);
      }
    }
    for (const { contender_id } of change.sweep?.steps ?? []) {
      if (!(await rowOrNull(write.db, studyId, 'contenders', { contender_id }))) {
        throw new RequestError(422, `sweep: ${contender_id} is no contender of this study`);
      }
    }
    const record = await updateStudy(write, given, version);
    checkSweep(metaOfRecord(record));
    await checkMaterials(write.db, studyId, record.intent);
    return { ...metaOfRecord(record), row_version: record.version };
  });
}

/** Where materials are compared, every contender names its own. @throws RequestError naming one that does not */
async function checkMaterials(
  db: Database,
  studyId: string,
  intent: StudyMeta['intent'],
): Promise<void> {
  if (intent !== 'materials') return;
  const contenders = await listRows(db, studyId, 'contenders');
  const open = contenders.find((row) => row.material_id === null);
  if (open) {
    throw new RequestError(
      422,
      `intent materials: the contender ${open.label} names no material. Give every contender its material_id first.`,
    );
  }
}

/** Puts a study away, once its title is given; it can be brought back for 30 days. */
export const putStudyAway = (
  app: App,
  studyId: string,
  title: string,
  who: string | null,
): Promise<void> =>
  writeStudy(app.db, studyId, who, async (write) => {
    const record = await findStudy(write.db, studyId);
    if (record.title !== title) {
      throw new RequestError(422, 'That is not the title of this study: nothing was deleted.');
    }
    await deleteStudy(write);
  });

/** Brings back a study that was put away. */
export const bringStudyBack = (app: App, studyId: string): Promise<void> =>
  restoreStudy(app.db, studyId);
