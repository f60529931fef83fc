import type { Row } from '../../core/study';
import { execute, select, type Database } from '../database';
import { NotFoundError } from '../errors';
import type { Write } from '../write';
import { refusing } from './rows';

/** A reading with the id that its client gave it. */
export type StoredReading = Omit<Row<'readings'>, 'extras'> & { reading_id: string };

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
 * Inserts readings. Sent again with the same id a reading is kept once; where its trial is taken by
 * another reading (somebody measured the same meanwhile) it becomes the next trial.
 *
 * @returns the readings as they are kept
 */
export function insertReadings(
  write: Write,
  readings: readonly StoredReading[],
): Promise<StoredReading[]> {
  return refusing('readings', async () => {
    const kept: StoredReading[] = [];
    for (const reading of readings) kept.push(await insertReading(write, reading));
    return kept;
  });
}

async function insertReading(write: Write, reading: StoredReading): Promise<StoredReading> {
  const { db, studyId } = write;
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
  );
  if (kept) write.touch('readings');
  return kept ?? findReading(write, reading.reading_id);
}

async function findReading({ db, studyId }: Write, readingId: string): Promise<StoredReading> {
  const [found] = await select<StoredReading>(
    db,
    `select ${COLUMNS} from readings where study_id = $1 and reading_id = $2`,
    [studyId, readingId],
  );
  if (!found) throw new NotFoundError('There is no such reading.');
  return found;
}

/** Takes a reading back: it is kept, and no longer counts. Doing it twice is the same as once. */
export async function supersedeReading(
  write: Write,
  readingId: string,
  at: string,
): Promise<StoredReading> {
  const before = await findReading(write, readingId);
  if (before.superseded_at !== null) return before;
  await execute(
    write.db,
    'update readings set superseded_at = $3 where study_id = $1 and reading_id = $2',
    [write.studyId, readingId, at],
  );
  write.touch('readings');
  return { ...before, superseded_at: at };
}
