import { Transaction } from 'sequelize';
import type { Study, StudyMeta, TableName, Tables } from '../../core/study';
import { columnsOf, emptyTables, TABLE_NAMES } from '../../core/study';
import { execute, select, type Database } from '../database';
import type { StudyRecord } from '../models/study';
import { ConflictError, NotFoundError } from '../errors';
import { logChange } from './changes';
import { slicedSettings } from './sliced-settings';

/** A study as the list of studies shows it. */
export interface StudySummary {
  study_id: string;
  name: string;
  title: string;
  intent: string;
  question: string | null;
  updated_at: string;
  contenders: number;
  prints: number;
  readings: number;
}

/** All studies that are not deleted, the one changed last first. */
export function listStudies(db: Database): Promise<StudySummary[]> {
  return select<StudySummary>(
    db,
    `select study_id, name, title, intent, question, updated_at,
       (select count(*)::int from contenders c where c.study_id = s.study_id) as contenders,
       (select count(*)::int from prints p where p.study_id = s.study_id) as prints,
       (select count(*)::int from readings r
         where r.study_id = s.study_id and r.superseded_at is null) as readings
     from studies s where deleted_at is null order by updated_at desc, study_id`,
    [],
  );
}

/** The record of a study. @throws NotFoundError where there is none */
export async function findStudy(
  db: Database,
  studyId: string,
  transaction?: Transaction,
): Promise<StudyRecord> {
  const isUuid = /^[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}$/i.test(studyId);
  const record = isUuid
    ? await db.studies.findOne({
        where: { study_id: studyId, deleted_at: null },
        ...(transaction && { transaction }),
      })
    : null;
  if (!record) throw new NotFoundError(`There is no study ${studyId}.`);
  return record;
}

/** What a study's record says of what it is about. */
export const metaOfRecord = (record: StudyRecord): StudyMeta => ({
  name: record.name,
  title: record.title,
  description: record.description,
  created: record.created,
  intent: record.intent,
  question: record.question,
  reference: record.reference,
  smallest_difference: record.smallest_difference,
  cost: record.cost,
  scorecard: record.scorecard,
  plan: record.plan ?? null,
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
  const isolationLevel = Transaction.ISOLATION_LEVELS.REPEATABLE_READ;
  return db.sequelize.transaction({ isolationLevel }, async (transaction) => {
    const record = await findStudy(db, studyId, transaction);
    const tables: Tables = emptyTables();
    for (const name of names) {
      (tables as Record<TableName, unknown[]>)[name] = await loadTable(
        db,
        studyId,
        name,
        transaction,
      );
    }
    const present = new Set(record.present as TableName[]);
    for (const name of names) if (tables[name].length > 0) present.add(name);
    const sliced = await slicedSettings(db, studyId, transaction);
    return {
      study: { meta: metaOfRecord(record), tables, present, sliced },
      revision: record.revision,
      packageExtras: record.package_extras,
    };
  });
}

async function loadTable(
  db: Database,
  studyId: string,
  name: TableName,
  transaction: Transaction,
): Promise<unknown[]> {
  const columns = columnsOf(name).map((column) => `"${column.name}"`);
  const rows = await select<{ extras: unknown }>(
    db,
    `select ${columns.join(', ')}, extras from ${name} where study_id = $1 order by ordinal`,
    [studyId],
    transaction,
  );
  for (const row of rows) if (row.extras === null) delete (row as { extras?: unknown }).extras;
  return rows;
}

/** Raises the revision of a study within a transaction, and returns the new one. */
export async function raiseRevision(
  db: Database,
  studyId: string,
  transaction: Transaction,
): Promise<string> {
  const [row] = await select<{ revision: string }>(
    db,
    'update studies set revision = revision + 1, updated_at = now() where study_id = $1 and deleted_at is null returning revision',
    [studyId],
    transaction,
  );
  if (!row) throw new NotFoundError(`There is no study ${studyId}.`);
  return row.revision;
}

/** Makes a study without rows. */
export async function createStudy(db: Database, studyId: string, meta: StudyMeta): Promise<void> {
  await db.studies.create({ study_id: studyId, ...meta });
}

/**
 * Changes the record of a study.
 *
 * @param version the version that the change was made from
 * @throws ConflictError where somebody else has changed it since
 */
export function updateStudy(
  db: Database,
  studyId: string,
  change: Partial<StudyMeta>,
  version: number,
  who: string | null,
): Promise<StudyRecord> {
  return db.sequelize.transaction(async (transaction) => {
    await execute(
      db,
      'select 1 from studies where study_id = $1 for update',
      [studyId],
      transaction,
    );
    const record = await findStudy(db, studyId, transaction);
    if (record.version !== version) {
      throw new ConflictError('The study was changed by somebody else in the meantime.', {
        ...metaOfRecord(record),
        row_version: record.version,
      });
    }
    const before = metaOfRecord(record);
    await record.update({ ...change, version: version + 1 }, { transaction });
    await raiseRevision(db, studyId, transaction);
    await logChange(
      db,
      { studyId, table: 'studies', key: {}, before, after: metaOfRecord(record), who },
      transaction,
    );
    return record;
  });
}

/** Puts a study away; it can be brought back. */
export async function deleteStudy(db: Database, studyId: string): Promise<void> {
  await findStudy(db, studyId);
  await execute(db, 'update studies set deleted_at = now() where study_id = $1', [studyId]);
}

/** Brings back a study that was put away less than 30 days ago. */
export async function restoreStudy(db: Database, studyId: string): Promise<void> {
  const rows = await select(
    db,
    `update studies set deleted_at = null
     where study_id = $1 and deleted_at > now() - interval '30 days' returning study_id`,
    [studyId],
  );
  if (rows.length === 0) throw new NotFoundError(`There is no deleted study ${studyId}.`);
}
