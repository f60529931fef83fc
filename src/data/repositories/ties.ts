import * as z from 'zod';
import { v7 as uuid } from 'uuid';
import type { AnyRow, TableName } from '../../core/model/study';
import {
  factsOf,
  keptInStep,
  KINDS,
  kindOfTable,
  nameOfThing,
  type Facts,
  ITEM_KINDS,
  type ItemKind,
} from '../../core/answers/workshop';
import { asJson, execute, query, type Database } from '../database';
import { RefusedError } from '../errors';
import type { Write } from '../write';

/** How the things of rows are made that nothing is known of yet. */
interface TieOptions {
  /** Since when the rows' facts are known: later ones count before earlier ones. */
  knownAt: Date;
  /** Whether a person made them: their ids travel with the study. */
  isKept: boolean;
}

/** A row of a study that no thing stands for yet. */
const looseRow = z.strictObject({ study_id: z.string(), id: z.string(), row: z.custom<AnyRow>() });
type LooseRow = z.infer<typeof looseRow>;

const looseRows = (db: Database, kind: ItemKind, studyId: string | null): Promise<LooseRow[]> => {
  const { table, id } = KINDS[kind];
  return query(
    db,
    looseRow,
    `select study_id, "${id}" as id, to_jsonb(t) as row from ${table} t
     where thing is null${studyId === null ? '' : ' and study_id = $1'}`,
    studyId === null ? [] : [studyId],
  );
};

/**
 * Gives rows of things their place in the workshop: by the lasting id that they carry, else as a thing
 * of its own, to be told to be another one by a person. Facts that are known later count.
 *
 * @param studyId the study whose rows they are; null for all studies
 * @throws RefusedError where a lasting id is that of a thing of another kind, or two rows of the study are one
 *   thing
 */
export async function tieRows(
  db: Database,
  studyId: string | null,
  { knownAt, isKept }: TieOptions,
): Promise<void> {
  for (const kind of ITEM_KINDS) {
    const loose = await looseRows(db, kind, studyId);
    if (loose.length === 0) continue;
    const rows = loose.map(({ study_id, id, row }) => {
      const facts = factsOf(kind, row);
      const uid = typeof row.uid === 'string' ? row.uid.toLowerCase() : null;
      return {
        study_id,
        id,
        uid: uid ?? uuid(),
        facts,
        name: nameOfThing(kind, facts),
        isNamed: uid !== null,
      };
    });
    await checkKinds(db, kind, rows);
    await execute(
      db,
      `insert into things (uid, kind, name, facts, known_at, is_kept)
       select distinct on (uid) uid, $2, name, facts, $3, is_kept
       from jsonb_to_recordset($1::jsonb) as t(uid uuid, name text, facts jsonb, is_kept boolean)
       order by uid
       on conflict (uid) do update set facts = excluded.facts, name = excluded.name,
         known_at = excluded.known_at, row_version = things.row_version + 1
       where things.known_at < excluded.known_at`,
      [asJson(rows.map((row) => ({ ...row, is_kept: isKept || row.isNamed }))), kind, knownAt],
    );
    const { table, id } = KINDS[kind];
    await execute(
      db,
      `update ${table} r set thing = t.uid
       from jsonb_to_recordset($1::jsonb) as t(study_id uuid, id text, uid uuid)
       where r.study_id = t.study_id and r."${id}" = t.id`,
      [asJson(rows.map(({ study_id, id: own, uid }) => ({ study_id, id: own, uid })))],
    );
    if (studyId !== null) await checkOnce(db, studyId, kind);
  }
}

const checkOnceRow = z.strictObject({ name: z.string(), rows: z.array(z.string()) });

/** Refuses a study two of whose rows are one thing, by a lasting id or as a person said. */
async function checkOnce(db: Database, studyId: string, kind: ItemKind): Promise<void> {
  const { table, id } = KINDS[kind];
  const [twice] = await query(
    db,
    checkOnceRow,
    `select t.name, array_agg(r."${id}" order by r."${id}") as rows
     from ${table} r join thing_roots u on u.uid = r.thing join things t on t.uid = u.root
     where r.study_id = $1 group by t.uid having count(*) > 1 limit 1`,
    [studyId],
  );
  if (!twice) return;
  throw new RefusedError(
    `${table}.csv: ${twice.rows.join(' and ')} are one thing of this workshop, ${twice.name}. ` +
      'Two rows of a study are two things: leave the lasting id (uid) of one empty, or take ' +
      'their merge back.',
  );
}

const checkKindsRow = z.strictObject({
  uid: z.string(),
  kind: z.enum(ITEM_KINDS),
  name: z.string(),
});

/** Refuses lasting ids that are those of things of another kind. */
async function checkKinds(
  db: Database,
  kind: ItemKind,
  rows: readonly { id: string; uid: string; isNamed: boolean }[],
): Promise<void> {
  const named = rows.filter((row) => row.isNamed);
  if (named.length === 0) return;
  const others = await query(
    db,
    checkKindsRow,
    'select uid, kind, name from things where uid = any($1::uuid[]) and kind <> $2 limit 1',
    [named.map((row) => row.uid), kind],
  );
  const [other] = others;
  if (!other) return;
  const row = named.find((one) => one.uid === other.uid);
  throw new RefusedError(
    `${KINDS[kind].table}.csv: ${row?.id ?? ''} has the lasting id (uid) of the ${other.kind} ` +
      `${other.name} in this workshop. Give it an id of its own, or leave the cell empty.`,
  );
}

/** Gives a row that was just added its thing: the one it names, or one of its own. */
export async function tieAdded(write: Write, table: TableName): Promise<void> {
  if (kindOfTable(table) === null) return;
  await tieRows(write.db, write.studyId, { knownAt: new Date(), isKept: true });
}

const followRowRow = z.strictObject({ uid: z.string(), facts: z.custom<Facts>() });

/** Has a thing learn what was changed on a row of it, as far as the two were in step. */
export async function followRow(
  write: Write,
  table: TableName,
  before: AnyRow,
  after: AnyRow,
): Promise<void> {
  const kind = kindOfTable(table);
  if (kind === null) return;
  const { id } = KINDS[kind];
  const [thing] = await query(
    write.db,
    followRowRow,
    `select t.uid, t.facts from ${table} r join thing_roots u on u.uid = r.thing
       join things t on t.uid = u.root
     where r.study_id = $1 and r."${id}" = $2 for no key update of t`,
    [write.studyId, after[id]],
  );
  if (!thing) return;
  const learnt = keptInStep(kind, factsOf(kind, before), factsOf(kind, after), thing.facts);
  if (learnt === null) return;
  await execute(
    write.db,
    `update things set facts = $2, name = $3, known_at = now(), row_version = row_version + 1
     where uid = $1`,
    [thing.uid, asJson(learnt), nameOfThing(kind, learnt)],
  );
}
