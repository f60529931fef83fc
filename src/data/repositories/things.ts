import * as z from 'zod';
import { v7 as uuid } from 'uuid';
import type { AnyRow } from '../../core/model/study';
import {
  besideEachOther,
  KINDS,
  nameOfThing,
  pairKey,
  ITEM_KINDS,
  type Facts,
  type KnownThing,
  type ItemKind,
} from '../../core/answers/workshop';
import { asJson, execute, query, someRow, type Database, moments } from '../database';
import { ConflictError, NotFoundError, RefusedError } from '../errors';
import { isUuid, transact } from '../write';

/** A thing of the workshop as it is known today. */
const thingRow = z.strictObject({
  uid: z.string(),
  kind: z.enum(ITEM_KINDS),
  name: z.string(),
  facts: z.custom<Facts>(),
  row_version: z.number(),
  deleted_at: z.string().nullable(),
});
export type CatalogueItem = z.infer<typeof thingRow>;

/** A study that has a thing, and what it is there. */
const thingUseRow = z.strictObject({
  /** The thing, after all merging. */
  uid: z.string(),
  study_id: z.string(),
  title: z.string(),
  /** When the study was begun, as it says. */
  created: z.string().nullable(),
  updated_at: z.string(),
  /** The id of the row. */
  id: z.string(),
  row: z.custom<AnyRow>(),
});
export type ItemUse = z.infer<typeof thingUseRow>;

const COLUMNS = `uid, kind, name, facts, row_version, ${moments('deleted_at')}`;

/** Things of a kind that were merged into others know what those do not. */
const FACTS = `(select coalesce(jsonb_object_agg(f.key, f.value), '{}') from (
    select distinct on (e.key) e.key, e.value
    from thing_roots u join things m on m.uid = u.uid, jsonb_each(m.facts) e
    where u.root = t.uid
    order by e.key, e.value = 'null', (m.uid = t.uid) desc, m.known_at desc
  ) f)`;

/** Everything of a kind that is in use, by name. */
export const listItems = (
  db: Database,
  kind: ItemKind,
  { deleted = false } = {},
): Promise<CatalogueItem[]> =>
  query(
    db,
    thingRow,
    `select ${COLUMNS.replace('facts', `${FACTS} as facts`)} from things t
     where kind = $1 and merged_into is null and deleted_at is ${deleted ? 'not null' : 'null'}
     order by lower(name), uid`,
    [kind],
  );

/** A thing, or the one that it was merged into. @throws NotFoundError */
export async function findItem(db: Database, uid: string): Promise<CatalogueItem> {
  const [found] = isUuid(uid)
    ? await query(
        db,
        thingRow,
        `select ${COLUMNS.replace('facts', `${FACTS} as facts`)} from things t
         where uid = (select root from thing_roots where uid = $1)`,
        [uid],
      )
    : [];
  if (!found) throw new NotFoundError('There is no such thing in the workshop.');
  return found;
}

/** The studies that have things of a kind, the one begun last first. */
export const usesOfThings = (
  db: Database,
  kind: ItemKind,
  uid: string | null = null,
): Promise<ItemUse[]> => {
  const { table, id } = KINDS[kind];
  return query(
    db,
    thingUseRow,
    `select u.root as uid, r.study_id, s.title, s.created, ${moments('s.updated_at')}, r."${id}" as id,
       to_jsonb(r) - 'study_id' - 'thing' - 'extras' - 'ordinal' as row
     from ${table} r join studies s on s.study_id = r.study_id and s.deleted_at is null
       join thing_roots u on u.uid = r.thing
     ${uid === null ? '' : 'where u.root = $1'}
     order by s.created desc nulls last, r.study_id, r.ordinal`,
    uid === null ? [] : [uid],
  );
};

const thingsOfStudyRow = z.strictObject({
  uid: z.string(),
  kind: z.enum(ITEM_KINDS),
  name: z.string(),
  facts: z.custom<Facts>(),
  row_version: z.number(),
  deleted_at: z.string().nullable(),
  id: z.string(),
});

/** What each row of a kind in a study is today. */
export const itemsOfStudy = (
  db: Database,
  studyId: string,
  kind: ItemKind,
): Promise<(CatalogueItem & { id: string })[]> => {
  const { table, id } = KINDS[kind];
  return query(
    db,
    thingsOfStudyRow,
    `select r."${id}" as id, t.uid, t.kind, t.name, ${FACTS} as facts, t.row_version,
       ${moments('t.deleted_at')}
     from ${table} r join thing_roots u on u.uid = r.thing join things t on t.uid = u.root
     where r.study_id = $1`,
    [studyId],
  );
};

const keptIdsRow = z.strictObject({ id: z.string(), uid: z.string() });

/** The lasting ids of a study's rows that travel with it, by table and row. */
export async function keptIds(db: Database, studyId: string): Promise<ReadonlyMap<string, string>> {
  const ids = new Map<string, string>();
  for (const { table, id } of Object.values(KINDS)) {
    const rows = await query(
      db,
      keptIdsRow,
      `select r."${id}" as id, t.uid from ${table} r join things t on t.uid = r.thing
       where r.study_id = $1 and t.is_kept`,
      [studyId],
    );
    for (const row of rows) ids.set(`${table} ${row.id}`, row.uid);
  }
  return ids;
}

/**
 * Adds a thing that no study has yet.
 *
 * @param evenIfNamed whether it is one more although another of its kind is called the same
 * @throws ConflictError with the other, where it was not said that there are two
 */
export function addItem(
  db: Database,
  kind: ItemKind,
  facts: Facts,
  evenIfNamed: boolean,
): Promise<CatalogueItem> {
  return transact(db, async (bound) => {
    // Two who name a thing at once follow one another: the second hears of the first.
    await execute(bound, 'select pg_advisory_xact_lock(hashtextextended($1, 0))', [
      `things ${kind}`,
    ]);
    const name = nameOfThing(kind, facts);
    const twin = evenIfNamed ? null : await thingCalled(bound, kind, name);
    if (twin) {
      throw new ConflictError(
        `There is a ${kind} ${twin.name} already. Is it that one, or a second one?`,
        twin,
      );
    }
    const uid = uuid();
    await execute(
      bound,
      `insert into things (uid, kind, name, facts, known_at, is_kept)
       values ($1, $2, $3, $4, now(), true)`,
      [uid, kind, name, asJson(facts)],
    );
    return findItem(bound, uid);
  });
}

/** The thing of a kind that is called so, in capitals or not; null where none is in the lists. */
export async function thingCalled(
  db: Database,
  kind: ItemKind,
  name: string,
): Promise<CatalogueItem | null> {
  const wanted = name.trim().toLowerCase();
  return (await listItems(db, kind)).find((one) => one.name.toLowerCase() === wanted) ?? null;
}

/**
 * Changes what is known of a thing today; studies keep what they have.
 *
 * @throws ConflictError with the thing as it stands, where somebody else has changed it since
 */
export function updateItem(
  db: Database,
  uid: string,
  change: Facts,
  version: number,
): Promise<CatalogueItem> {
  return transact(db, async (bound) => {
    const thing = await lockItem(bound, uid);
    if (thing.row_version !== version) {
      throw new ConflictError('This was changed by somebody else in the meantime.', thing);
    }
    const facts = { ...thing.facts, ...change };
    await execute(
      bound,
      `update things set facts = $2, name = $3, known_at = now(), is_kept = true,
         row_version = row_version + 1 where uid = $1`,
      [thing.uid, asJson(facts), nameOfThing(thing.kind, facts)],
    );
    return findItem(bound, thing.uid);
  });
}

/** Takes a thing out of the lists, or puts it back; studies that have it keep it. */
export function setThingDeleted(db: Database, uid: string, isDeleted: boolean): Promise<void> {
  return transact(db, async (bound) => {
    const thing = await lockItem(bound, uid);
    await execute(
      bound,
      `update things set deleted_at = case when $2 then now() end, row_version = row_version + 1
       where uid = $1`,
      [thing.uid, isDeleted],
    );
  });
}

async function lockItem(db: Database, uid: string): Promise<CatalogueItem> {
  const thing = await findItem(db, uid);
  await execute(db, 'select 1 from things where uid = $1 for no key update', [thing.uid]);
  // It may have been another before it was locked.
  return findItem(db, thing.uid);
}

/**
 * Says that two things are one: the rows of both are the first's from then on. Studies are not changed.
 *
 * @throws RefusedError where both stand in one study, or are of two kinds
 */
export function mergeItems(db: Database, into: string, from: string): Promise<CatalogueItem> {
  return transact(db, async (bound) => {
    // Always in the same order, so that two who merge do not wait for each other.
    for (const uid of [into, from].sort()) await lockItem(bound, uid);
    const [kept, merged] = [await findItem(bound, into), await findItem(bound, from)];
    if (kept.uid === merged.uid) return kept;
    if (kept.kind !== merged.kind) {
      throw new RefusedError(`${merged.name} is a ${merged.kind}, ${kept.name} a ${kept.kind}.`);
    }
    const uses = await usesOfThings(bound, kept.kind);
    const studiesOf = (uid: string) =>
      uses.filter((use) => use.uid === uid).map((use) => use.study_id);
    const both = besideEachOther(
      { studies: studiesOf(kept.uid) },
      { studies: studiesOf(merged.uid) },
    );
    if (both !== null) {
      const title = uses.find((use) => use.study_id === both)?.title ?? '';
      throw new RefusedError(
        `${kept.name} and ${merged.name} are compared with each other in “${title}”, ` +
          'so they cannot be the same. Nothing was changed.',
      );
    }
    await execute(
      bound,
      `update things set merged_into = $2, merged_at = now(), is_kept = true,
         row_version = row_version + 1 where uid = $1`,
      [merged.uid, kept.uid],
    );
    await execute(
      bound,
      'update things set is_kept = true, row_version = row_version + 1 where uid = $1',
      [kept.uid],
    );
    return findItem(bound, kept.uid);
  });
}

/** Something that was merged into a thing, and on which day. */
const mergedRow = z.strictObject({ uid: z.string(), name: z.string(), on: z.string() });
export type Merged = z.infer<typeof mergedRow>;

/** What was merged into a thing, the latest first. */
export const mergedInto = (db: Database, uid: string): Promise<Merged[]> =>
  query(
    db,
    mergedRow,
    `select uid, name, to_char(merged_at, 'YYYY-MM-DD') as on
     from things where merged_into = $1 order by merged_at desc`,
    [uid],
  );

/** Takes a merge back: the thing is its own again. @throws NotFoundError where it was not merged */
export async function splitItem(db: Database, uid: string): Promise<void> {
  const found = isUuid(uid)
    ? await query(
        db,
        someRow,
        `update things set merged_into = null, merged_at = null, row_version = row_version + 1
         where uid = $1 and merged_into is not null returning uid`,
        [uid],
      )
    : [];
  if (found.length === 0) throw new NotFoundError('This thing was not merged into another.');
}

/** Puts down that two things are two, however alike they are. */
export async function tellApart(db: Database, one: string, other: string): Promise<void> {
  const [a, b] = [await findItem(db, one), await findItem(db, other)];
  if (a.uid === b.uid) throw new RefusedError('This is one thing already.');
  const [first, second] = pairKey(a.uid, b.uid).split(' ');
  await execute(
    db,
    'insert into things_apart (one, other) values ($1, $2) on conflict do nothing',
    [first, second],
  );
}

const pairsApartRow = z.strictObject({ one: z.string(), other: z.string() });

/** Pairs that a person told apart. */
export const pairsApart = async (db: Database): Promise<ReadonlySet<string>> =>
  new Set(
    (await query(db, pairsApartRow, 'select one, other from things_apart')).map((pair) =>
      pairKey(pair.one, pair.other),
    ),
  );

/** What tells whether things of a kind are the same. */
export async function knownItems(db: Database, kind: ItemKind): Promise<KnownThing[]> {
  const [things, uses] = [await listItems(db, kind), await usesOfThings(db, kind)];
  const settings = kind === 'profile' ? await settingsOfProfiles(db) : new Map<string, string>();
  return things.map(({ uid, facts }) => {
    const own = uses.filter((use) => use.uid === uid);
    const hashes = own.flatMap(({ row }) =>
      typeof row.mesh_sha256 === 'string' ? [row.mesh_sha256] : [],
    );
    return {
      uid,
      kind,
      facts,
      meshes: [...new Set(hashes.map((hash) => hash.toLowerCase()))],
      settings: own.map((use) => settings.get(`${use.study_id} ${use.id}`)).find(Boolean) ?? null,
      studies: own.map((use) => use.study_id),
    };
  });
}

const settingsOfProfilesRow = z.strictObject({ name: z.string(), settings: z.string() });

/** The settings of every profile as one text, by study and profile. */
async function settingsOfProfiles(db: Database): Promise<Map<string, string>> {
  const rows = await query(
    db,
    settingsOfProfilesRow,
    `select study_id || ' ' || profile_id as name,
       string_agg(key || '=' || value, E'\\n' order by key) as settings
     from profile_settings group by study_id, profile_id`,
  );
  return new Map(rows.map((row) => [row.name, row.settings]));
}
