import * as z from 'zod';
import { columnsOf, TABLES, type Row } from '../../core/model/study';
import { asJson, execute, query, type Database } from '../database';
import { ConflictError, NotFoundError } from '../errors';
import type { Write } from '../write';
import { refusing } from './rows';

/** A reading with the id that its client gave it. */
export type StoredReading = Omit<Row<'readings'>, 'extras'> & { reading_id: string };

const SQL_TYPES: Readonly<Record<string, string>> = { number: 'float8', whole: 'integer' };

let made: ReturnType<typeof makeShape> | null = null;

/** How a reading is stored: its columns as the study's schema has them, and the id of its client. */
function makeShape() {
  const columns = columnsOf('readings');
  const sent = columns.filter(({ name }) => name !== 'superseded_at');
  return {
    row: TABLES.readings.row.extend({ reading_id: z.string() }).strict(),
    columns: ['reading_id', ...columns.map(({ name }) => name)].join(', '),
    /** What comes with a new reading: in order, and as a record of the database. */
    sent: sent.map(({ name }) => name).join(', '),
    record: sent.map(({ name, cell }) => `${name} ${SQL_TYPES[cell] ?? 'text'}`).join(', '),
    /** As it is added: its trial is found while it is. */
    added: sent.map(({ name }) => (name === 'trial' ? '(lift + turn)::int' : name)).join(', '),
  };
}

const shape = () => (made ??= makeShape());

/** Some readings of a study, picked by a condition of one's own. */
const selectReadings = (
  db: Database,
  rest: string,
  bind: readonly unknown[],
): Promise<StoredReading[]> =>
  query(
    db,
    shape().row,
    `select ${shape().columns} from readings where study_id = $1 ${rest}`,
    bind,
  );

/** All readings of a study that count, in the order in which they came. */
export const listReadings = (db: Database, studyId: string): Promise<StoredReading[]> =>
  selectReadings(db, 'and superseded_at is null order by ordinal', [studyId]);

/** A reading's id was sent before, with another content. */
function sameOrRefuse(sent: StoredReading, kept: StoredReading): void {
  const isSame =
    sent.specimen_id === kept.specimen_id &&
    sent.dimension_id === kept.dimension_id &&
    sent.value_mm === kept.value_mm &&
    sent.instrument_id === kept.instrument_id &&
    sent.operator === kept.operator;
  if (isSame) return;
  throw new ConflictError(
    'A reading with this id exists already, with another value or place. Give the new reading an id of its own.',
    kept,
  );
}

/**
 * Inserts readings in a few statements, however many they are. A reading that is sent twice with one id is stored once;
 * where its trial is taken by another reading (two people measured the same thing) it becomes the next trial.
 *
 * @returns the readings as stored, in the order in which they were sent
 * @throws ConflictError where a reading with this id exists with another value
 */
export function insertReadings(
  write: Write,
  readings: readonly StoredReading[],
): Promise<StoredReading[]> {
  const { db, studyId } = write;
  return refusing('readings', async () => {
    const sent = new Map(readings.map((reading) => [reading.reading_id, reading]));
    const { row, columns, sent: given, record, added: values } = shape();
    const added = await query(
      db,
      row,
      `with sent as (
         select *, row_number() over () as place
         from jsonb_to_recordset($2::jsonb) as s(reading_id uuid, ${record})
       ), fresh as (
         select s.*, coalesce((
             select max(r.trial) from readings r
             where r.study_id = $1::uuid and r.specimen_id = s.specimen_id
               and r.dimension_id = s.dimension_id and r.superseded_at is null
               and r.instrument_id is not distinct from s.instrument_id
               and r.operator is not distinct from s.operator
           ), 0) as known
         from sent s
         where not exists (
           select 1 from readings r where r.study_id = $1::uuid and r.reading_id = s.reading_id)
       ), placed as (
         -- Each follows the trials that are there and those sent before it: max(trial sent, last trial + 1).
         select f.*, row_number() over same as turn,
           max(greatest(f.trial, f.known + 1) - f.turn0) over (same rows unbounded preceding) as lift
         from (select *, row_number() over (
             partition by specimen_id, dimension_id, instrument_id, operator order by place) as turn0
           from fresh) f
         window same as (partition by specimen_id, dimension_id, instrument_id, operator order by place)
       )
       insert into readings (study_id, reading_id, ${given})
       select $1::uuid, reading_id, ${values} from placed order by place
       returning ${columns}`,
      [studyId, asJson([...sent.values()])],
    );
    if (added.length > 0) write.touch('readings');
    const kept = new Map(added.map((reading) => [reading.reading_id, reading]));
    const others = [...sent.keys()].filter((id) => !kept.has(id));
    for (const reading of await findReadings(write, others)) kept.set(reading.reading_id, reading);
    return readings.map((reading) => {
      const found = kept.get(reading.reading_id);
      if (!found) throw new NotFoundError('There is no such reading.');
      sameOrRefuse(reading, found);
      return found;
    });
  });
}

/** What a reading names and is not there: the column, and its value. */
const brokenReadingRow = z.strictObject({
  column: z.enum(['dimension_id', 'specimen_id', 'instrument_id']),
  value: z.string(),
});
export type BrokenReading = z.infer<typeof brokenReadingRow>;

/** The first thing that any of some readings names and that is not there; null where all is: one question for all. */
export async function brokenReading(
  { db, studyId }: Write,
  readings: readonly StoredReading[],
): Promise<BrokenReading | null> {
  const [found] = await query(
    db,
    brokenReadingRow,
    `with sent as (
       select specimen_id, dimension_id, instrument_id, min(place) as place
       from jsonb_to_recordset($2::jsonb)
         as s(place integer, specimen_id text, dimension_id text, instrument_id text)
       group by specimen_id, dimension_id, instrument_id
     ), held as (
       select sent.*, p.artefact_id from sent
       left join specimens sp on sp.study_id = $1::uuid and sp.specimen_id = sent.specimen_id
       left join prints p on p.study_id = $1::uuid and p.print_id = sp.print_id
     )
     select "column", value from (
       select case
           when artefact_id is null then 'specimen_id'
           when not exists (select 1 from dimensions d where d.study_id = $1::uuid
             and d.artefact_id = held.artefact_id and d.dimension_id = held.dimension_id)
             then 'dimension_id'
           when instrument_id is not null and not exists (select 1 from instruments i
             where i.study_id = $1::uuid and i.instrument_id = held.instrument_id)
             then 'instrument_id'
         end as "column", held.*
       from held
     ) b
     cross join lateral (select case b."column" when 'specimen_id' then b.specimen_id
       when 'dimension_id' then b.dimension_id else b.instrument_id end as value) v
     where b."column" is not null order by b.place limit 1`,
    [
      studyId,
      asJson(
        readings.map(({ specimen_id, dimension_id, instrument_id }, place) => ({
          place,
          specimen_id,
          dimension_id,
          instrument_id,
        })),
      ),
    ],
  );
  return found ? { column: found.column, value: found.value } : null;
}

/** The readings of some ids that are there, those that count no more too. */
export const findReadings = (
  { db, studyId }: Pick<Write, 'db' | 'studyId'>,
  ids: readonly string[],
): Promise<StoredReading[]> =>
  ids.length === 0
    ? Promise.resolve([])
    : selectReadings(db, 'and reading_id = any($2::uuid[]) order by ordinal', [studyId, ids]);

async function findReading({ db, studyId }: Write, readingId: string): Promise<StoredReading> {
  const [found] = await selectReadings(db, 'and reading_id = $2', [studyId, readingId]);
  if (!found) throw new NotFoundError('There is no such reading.');
  return found;
}

/** Withdraws a reading: it stays stored and no longer counts. Doing it twice is the same as once. */
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
