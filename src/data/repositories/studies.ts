import * as z from 'zod';
import type { StudyPart } from '../../core/answers/results';
import { Transaction } from 'sequelize';
import {
  isTableName,
  type SentStudy,
  type Study,
  type StudyMeta,
  type TableName,
  tablesOf,
} from '../../core/model/study';
import { columnsOf, sentColumns, TABLE_NAMES } from '../../core/model/study';
import { copyOut } from '../bulk';
import { execute, query, someRow, within, type Database, moments } from '../database';
import type { StudyRecord } from '../models/study';
import { ConflictError, NotFoundError } from '../errors';
import { isUuid, type Write } from '../write';
import { logChange } from './changes';
import { slicedSettings } from './sliced-settings';

const BINNED_FOR = "interval '30 days'";

/** How the keys of the demo's imports begin. */
export const DEMO_KEY = 'demo/';

/** A study as the list of studies shows it. */
const studySummaryRow = z.strictObject({
  study_id: z.string(),
  name: z.string(),
  title: z.string(),
  intent: z.string(),
  question: z.string().nullable(),
  updated_at: z.string(),
  archived_at: z.string().nullable(),
  labels: z.array(z.string()),
  is_demo: z.boolean(),
  contenders: z.number(),
  prints: z.number(),
  readings: z.number(),
});
export type StudySummary = z.infer<typeof studySummaryRow>;

/** Whether a study of `s` came with the program as part of its demo. */
const IS_DEMO = `exists (select 1 from imports i
  where i.study_id = s.study_id and starts_with(i.import_key, '${DEMO_KEY}'))`;

/** All studies that are not deleted, the one changed last first. */
export function listStudies(db: Database): Promise<StudySummary[]> {
  return query(
    db,
    studySummaryRow,
    `select study_id, name, title, intent, question, ${moments('updated_at', 'archived_at')},
       labels, ${IS_DEMO} as is_demo,
       (select count(*)::int from contenders c where c.study_id = s.study_id) as contenders,
       (select count(*)::int from prints p where p.study_id = s.study_id) as prints,
       (select count(*)::int from readings r
         where r.study_id = s.study_id and r.superseded_at is null) as readings
     from studies s where deleted_at is null order by updated_at desc, study_id`,
  );
}

/** The record of a study. @throws NotFoundError where there is none */
export async function findStudy(db: Database, studyId: string): Promise<StudyRecord> {
  const record = isUuid(studyId)
    ? await db.studies.findOne({ where: { study_id: studyId, deleted_at: null }, ...within(db) })
    : null;
  if (!record) throw new NotFoundError(`There is no study ${studyId.slice(0, 80)}.`);
  return record;
}

/** What a study's record says of what it is about. */
export const metaOfRecord = (record: StudyRecord): StudyMeta => ({
  name: record.name,
  title: record.title,
  description: record.description,
  created: record.created,
  intent: record.intent,
  factor: record.factor ?? null,
  farm: record.farm ?? null,
  question: record.question,
  reference: record.reference,
  smallest_difference: record.smallest_difference,
  cost: record.cost,
  scorecard: record.scorecard,
  scorecards: record.scorecards ?? null,
  sweep: record.sweep ?? null,
  plan: record.plan ?? null,
  report: record.report ?? null,
});

/** A study read whole at one moment, with the revision it was read at. */
export interface LoadedStudy {
  study: Study;
  revision: string;
  packageExtras: Record<string, unknown>;
}

/** Reads some or all tables of a study in one snapshot. Tables not asked for are empty. */
export function loadStudy(
  db: Database,
  studyId: string,
  names: readonly TableName[] = TABLE_NAMES,
): Promise<LoadedStudy> {
  return atOneMoment(db, async (bound) => {
    const record = await findStudy(bound, studyId);
    const loaded = new Map<TableName, object[]>();
    for (const name of names) loaded.set(name, await loadTable(bound, studyId, name));
    const tables = tablesOf((name) => loaded.get(name) ?? []);
    const hasRows = (name: TableName) => tables[name].length > 0;
    const rest = await withoutTables(bound, record, names.filter(hasRows));
    return {
      study: { ...rest, tables },
      revision: record.revision,
      packageExtras: record.package_extras,
    };
  });
}

/** Reads a study like `loadStudy`, its rows as they come: for a thread that takes them apart. */
export function loadSentStudy(
  db: Database,
  studyId: string,
  names: readonly TableName[],
): Promise<{ study: SentStudy; revision: string }> {
  return atOneMoment(db, async (bound) => {
    const record = await findStudy(bound, studyId);
    const texts: SentStudy['texts'] = {};
    for (const name of names) texts[name] = await copyOut(bound, name, sentColumns(name), studyId);
    const hasRows = (name: TableName) => (texts[name]?.length ?? 0) > 0;
    const rest = await withoutTables(bound, record, names.filter(hasRows));
    return { study: { ...rest, texts }, revision: record.revision };
  });
}

/** Reads all of a study as it stands at one moment. */
const atOneMoment = <Result>(db: Database, read: (bound: Database) => Promise<Result>) =>
  db.sequelize.transaction(
    { isolationLevel: Transaction.ISOLATION_LEVELS.REPEATABLE_READ },
    (transaction) => read({ ...db, transaction }),
  );

/** What a study is beside its rows; tables with rows in them are there. */
async function withoutTables(
  bound: Database,
  record: StudyRecord,
  filled: readonly TableName[],
): Promise<Omit<Study, 'tables'>> {
  return {
    meta: metaOfRecord(record),
    present: new Set([...record.present.filter(isTableName), ...filled]),
    sliced: await slicedSettings(bound, record.study_id),
  };
}

const loadTableRow = z.looseObject({ extras: z.unknown().optional() });

async function loadTable(db: Database, studyId: string, name: TableName): Promise<object[]> {
  const columns = columnsOf(name).map((column) => `"${column.name}"`);
  const rows = await query(
    db,
    loadTableRow,
    `select ${columns.join(', ')}, extras from ${name} where study_id = $1 order by ordinal`,
    [studyId],
  );
  for (const row of rows) if (row.extras === null) delete row.extras;
  return rows;
}

/**
 * Makes a study without rows. The same study sent again is taken for the same.
 *
 * @throws ConflictError where another study has this id
 */
export async function createStudy(db: Database, studyId: string, meta: StudyMeta): Promise<void> {
  const [record, isNew] = await db.studies.findOrCreate({
    where: { study_id: studyId },
    defaults: { study_id: studyId, ...meta },
    ...within(db),
  });
  if (isNew || (record.title === meta.title && record.intent === meta.intent)) return;
  throw new ConflictError('Another study has this id.', { study_id: studyId });
}

/**
 * Updates the record of a study.
 *
 * @param version the version that the change was made from
 * @throws ConflictError where somebody else has changed it since
 */
export async function updateStudy(
  write: Write,
  change: Partial<StudyMeta>,
  version: number,
): Promise<StudyRecord> {
  const record = await findStudy(write.db, write.studyId);
  const before = metaOfRecord(record);
  if (record.version !== version) {
    throw new ConflictError('The study was changed by somebody else in the meantime.', {
      ...before,
      row_version: record.version,
    });
  }
  await record.update({ ...change, version: version + 1 }, within(write.db));
  for (const part of partsOfChange(change)) write.touch(part);
  await logChange(write, { table: 'studies', key: {}, before, after: metaOfRecord(record) });
  return record;
}

/** What of a study a change of its record touches: cards and report by themselves, so that no figure is made anew. */
function partsOfChange(change: Partial<StudyMeta>): StudyPart[] {
  const partOf = (key: string): StudyPart => {
    if (key === 'scorecard' || key === 'scorecards') return 'cards';
    return key === 'report' ? 'report' : 'studies';
  };
  return [...new Set(Object.keys(change).map(partOf))];
}

/** Puts a study away; it can be brought back. */
export const deleteStudy = ({ db, studyId }: Write): Promise<void> =>
  execute(db, 'update studies set deleted_at = now() where study_id = $1', [studyId]);

/** Brings back a study that was put away less than 30 days ago. */
export async function restoreStudy(db: Database, studyId: string): Promise<void> {
  if (!isUuid(studyId))
    throw new NotFoundError(`There is no deleted study ${studyId.slice(0, 80)}.`);
  const rows = await query(
    db,
    someRow,
    `update studies set deleted_at = null
     where study_id = $1 and deleted_at > now() - ${BINNED_FOR} returning study_id`,
    [studyId],
  );
  if (rows.length === 0) throw new NotFoundError(`There is no deleted study ${studyId}.`);
}

/** What is changed of how a workshop sorts a study; what is not given stays. */
export interface Shelf {
  isArchived?: boolean | undefined;
  labels?: readonly string[] | undefined;
}

/** Archives a study or brings it back, and labels it. @throws NotFoundError */
export async function shelveStudy(
  db: Database,
  studyId: string,
  { isArchived, labels }: Shelf,
): Promise<void> {
  const rows = isUuid(studyId)
    ? await query(
        db,
        someRow,
        // Pages show whether a study is archived: they are others now.
        `update studies set revision = revision + 1,
           archived_at = case when $2::boolean is null then archived_at
             when $2 then coalesce(archived_at, now()) else null end,
           labels = coalesce($3::text[], labels)
         where study_id = $1 and deleted_at is null returning study_id`,
        [studyId, isArchived ?? null, labels ?? null],
      )
    : [];
  if (rows.length === 0) throw new NotFoundError(`There is no study ${studyId.slice(0, 80)}.`);
}

const countRow = z.strictObject({ n: z.number() });

/** Deletes all studies of the demo; they can be brought back for 30 days. @returns how many */
export async function deleteDemo(db: Database): Promise<number> {
  const rows = await query(
    db,
    someRow,
    `update studies s set deleted_at = now() where deleted_at is null and ${IS_DEMO} returning 1`,
  );
  return rows.length;
}

/** Brings back the studies of the demo that were deleted less than 30 days ago. @returns how many */
export async function restoreDemo(db: Database): Promise<number> {
  const rows = await query(
    db,
    someRow,
    `update studies s set deleted_at = null
     where deleted_at > now() - ${BINNED_FOR} and ${IS_DEMO} returning 1`,
  );
  return rows.length;
}

/** How many studies of the demo are deleted and can be brought back. */
export async function deletedDemo(db: Database): Promise<number> {
  const [found] = await query(
    db,
    countRow,
    `select count(*)::int as n from studies s
     where deleted_at > now() - ${BINNED_FOR} and ${IS_DEMO}`,
  );
  return found?.n ?? 0;
}

/** Other studies that came from a package of this name, the latest first. */
export const studiesNamed = (
  db: Database,
  name: string,
  except: string,
): Promise<{ study_id: string; title: string }[]> =>
  query(
    db,
    namedStudyRow,
    `select study_id, title from studies
     where name = $1 and study_id <> $2 and deleted_at is null order by created_at desc`,
    [name, except],
  );

const namedStudyRow = z.strictObject({ study_id: z.string(), title: z.string() });

/** A study in the bin. */
const binnedStudyRow = z.strictObject({
  study_id: z.string(),
  title: z.string(),
  deleted_at: z.string(),
  /** Whole days until it is gone for good. */
  days_left: z.number(),
});
export type BinnedStudy = z.infer<typeof binnedStudyRow>;

/** Studies that were put away and can be brought back, the last first. */
export const binnedStudies = (db: Database): Promise<BinnedStudy[]> =>
  query(
    db,
    binnedStudyRow,
    `select study_id, title, ${moments('deleted_at')},
       floor(extract(epoch from deleted_at + ${BINNED_FOR} - now()) / 86400)::int as days_left
     from studies where deleted_at > now() - ${BINNED_FOR} order by deleted_at desc`,
  );

/** Removes for good what has lain in the bin for its time, with all that belongs to it. */
export const emptyBin = (db: Database): Promise<void> =>
  execute(db, `delete from studies where deleted_at < now() - ${BINNED_FOR}`);

const countStudiesRow = z.strictObject({ n: z.number() });

/** How many studies there are or were, the deleted ones too. */
export async function countStudies(db: Database): Promise<number> {
  const [found] = await query(db, countStudiesRow, 'select count(*)::int as n from studies');
  return found?.n ?? 0;
}

/** How a study stands: its revision, and at which each part of it was last touched. */
const standingRow = z.strictObject({
  revision: z.string(),
  touched: z.custom<Readonly<Record<string, number>>>(),
  /** The page that touched each part last. */
  touched_by: z.custom<Readonly<Record<string, string>>>(),
});
export type Standing = z.infer<typeof standingRow>;

/** How a study stands; null where there is none. */
export async function standingOf(db: Database, studyId: string): Promise<Standing | null> {
  if (!isUuid(studyId)) return null;
  const [found] = await query(
    db,
    standingRow,
    'select revision, touched, touched_by from studies where study_id = $1 and deleted_at is null',
    [studyId],
  );
  return found ?? null;
}

const revisionOfRow = z.strictObject({ revision: z.string() });

/** The revision of a study; null where there is none. */
export async function revisionOf(db: Database, studyId: string): Promise<string | null> {
  if (!isUuid(studyId)) return null;
  const [found] = await query(
    db,
    revisionOfRow,
    'select revision from studies where study_id = $1 and deleted_at is null',
    [studyId],
  );
  return found?.revision ?? null;
}
