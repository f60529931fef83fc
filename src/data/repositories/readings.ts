import { BaseError } from 'sequelize';
import type { Transaction } from 'sequelize';
import type { AnyRow } from '../../core/study';
import { change, select, type Database } from '../database';
import { NotFoundError } from '../errors';
import { asRefusal } from './rows';
import { raiseRevision } from './studies';

/** A reading with the id that its client gave it. */
export type StoredReading = AnyRow & { reading_id: string };

const COLUMNS =
  'reading_id, specimen_id, dimension_id, trial, value_mm, instrument_id, operator, at, superseded_at';

/** All readings of a study that count, in the order in which they came. */
export const listReadings = (db: Database, studyId: string): Promise<StoredReading[]> =>
  select<StoredReading>(
    db,
    `select ${COLUMNS} from readings where study_id = $1 and superseded_at is null order by ordinal`,
    [studyId],
  );

/**
 * Keeps a reading. Sent again with the same id it is kept once; where its trial is taken by another
 * reading (somebody measured the same meanwhile) it becomes the next trial.
 *
 * @returns the reading as it is kept
 */
export async function appendReading(
  db: Database,
  studyId: string,
  reading: StoredReading,
): Promise<StoredReading> {
  const [kept] = await appendReadings(db, studyId, [reading]);
  if (!kept) throw new Error('a reading was kept and is not there');
  return kept;
}

/** Keeps several readings, all of them or none, each as one is kept. */
export async function appendReadings(
  db: Database,
  studyId: string,
  readings: readonly StoredReading[],
): Promise<StoredReading[]> {
  try {
    return await change(db, async (transaction) => {
      // The study's row is locked first, so that two benches cannot take the same trial.
      await raiseRevision(db, studyId, transaction);
      const kept: StoredReading[] = [];
      for (const reading of readings) kept.push(await insert(db, studyId, reading, transaction));
      return kept;
    });
  } catch (error) {
    throw error instanceof BaseError ? asRefusal(error, 'readings') : error;
  }
}

async function insert(
  db: Database,
  studyId: string,
  reading: StoredReading,
  transaction: Transaction,
): Promise<StoredReading> {
  const bind = [
    studyId,
    reading.reading_id,
    reading.specimen_id,
    reading.dimension_id,
    reading.trial,
    reading.value_mm,
    reading.instrument_id,
    reading.operator,
    reading.at,
  ];
  const [kept] = await select<StoredReading>(
    db,
    `insert into readings (study_id, reading_id, specimen_id, dimension_id, trial, value_mm,
       instrument_id, operator, at)
     select $1::uuid, $2::uuid, $3, $4, greatest($5::int, coalesce(max(r.trial) + 1, 1)),
       $6::float8, $7, $8, $9
     from (select 1) one left join readings r on r.study_id = $1::uuid and r.specimen_id = $3
       and r.dimension_id = $4 and r.instrument_id is not distinct from $7
       and r.operator is not distinct from $8 and r.superseded_at is null
     on conflict (study_id, reading_id) do nothing
     returning ${COLUMNS}`,
    bind,
    transaction,
  );
  return kept ?? findReading(db, studyId, reading.reading_id, transaction);
}

async function findReading(
  db: Database,
  studyId: string,
  readingId: string,
  transaction: Transaction,
): Promise<StoredReading> {
  const [found] = await select<StoredReading>(
    db,
    `select ${COLUMNS} from readings where study_id = $1 and reading_id = $2`,
    [studyId, readingId],
    transaction,
  );
  if (!found) throw new NotFoundError('There is no such reading.');
  return found;
}

/** Takes a reading back: it is kept, and no longer counts. Doing it twice is the same as once. */
export function supersedeReading(
  db: Database,
  studyId: string,
  readingId: string,
  at: string,
): Promise<StoredReading> {
  return db.sequelize.transaction(async (transaction) => {
    await raiseRevision(db, studyId, transaction);
    const [superseded] = await select<StoredReading>(
      db,
      `update readings set superseded_at = coalesce(superseded_at, $3)
       where study_id = $1 and reading_id = $2 returning ${COLUMNS}`,
      [studyId, readingId, at],
      transaction,
    );
    if (!superseded) throw new NotFoundError('There is no such reading.');
    return superseded;
  });
}
