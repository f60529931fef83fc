import * as z from 'zod';
import { columnsOf } from '../../core/model/study';
import {
  factDifferences,
  factNames,
  factsOf,
  KINDS,
  proposeSame,
  ITEM_KINDS,
  type FactDifference,
  type Facts,
  type ItemKind,
} from '../../core/answers/workshop';
import {
  addItem,
  findItem,
  knownItems,
  listItems,
  mergedInto,
  mergeItems,
  pairsApart,
  setThingDeleted,
  splitItem,
  tellApart,
  updateItem,
  usesOfThings,
  type CatalogueItem,
} from '../../data';
import type { App } from '../app';
import { RequestError } from '../http/problem';

export { isUuid, type CatalogueItem } from '../../data';

/** A kind of thing, as an address names it. */
export const thingKind = z.enum(ITEM_KINDS);

/** What a client says of a thing: any of the facts of its kind. */
const factsSchema = z.record(z.string(), z.union([z.string(), z.number(), z.null()]));

/** Checks facts by the columns of their kind. @throws RequestError naming the first that cannot be */
function checkFacts(kind: ItemKind, sent: Facts): Facts {
  const columns = new Map(columnsOf(KINDS[kind].table).map((column) => [column.name, column]));
  const known = new Set(factNames(kind));
  for (const [name, value] of Object.entries(sent)) {
    const column = columns.get(name);
    if (!column || !known.has(name)) {
      throw new RequestError(422, `${name.slice(0, 60)} is no fact of a ${kind}.`);
    }
    if (value === null) {
      if (column.required) throw new RequestError(422, `${name} must not be empty.`);
      continue;
    }
    const checked = column.schema.safeParse(value);
    if (!checked.success) {
      const [issue] = checked.error.issues;
      throw new RequestError(422, `${name} ${issue?.message ?? 'cannot be that'}`);
    }
  }
  return sent;
}

/** A thing to be added to the workshop. */
export const newThingSchema = z.strictObject({
  kind: thingKind,
  facts: factsSchema,
  /** Whether it is one more although another is called the same. */
  evenIfNamed: z.boolean().optional(),
});

/**
 * Adds a thing that no study has yet.
 *
 * @throws ConflictError where another of its kind is called the same and it was not said that there are two
 */
export async function makeItem(
  app: App,
  { kind, facts, evenIfNamed }: z.infer<typeof newThingSchema>,
) {
  const checked = checkFacts(kind, facts);
  for (const { name, required } of columnsOf(KINDS[kind].table)) {
    if (required && factNames(kind).includes(name) && checked[name] === undefined) {
      throw new RequestError(422, `${name} must not be empty.`);
    }
  }
  const whole = factsOf(kind, checked);
  return addItem(app.db, kind, whole, evenIfNamed === true);
}

/** A change of what is known of a thing today. */
export const thingChangeSchema = z.strictObject({
  version: z.number().int().positive(),
  change: factsSchema,
});

/** Changes what is known of a thing today; studies keep what they have. @throws NotFoundError, ConflictError */
export async function changeItem(
  app: App,
  uid: string,
  { version, change }: z.infer<typeof thingChangeSchema>,
): Promise<CatalogueItem> {
  const { kind } = await findItem(app.db, uid);
  return updateItem(app.db, uid, checkFacts(kind, change), version);
}

/** What can be done with a thing. */
export const thingActionSchema = z.discriminatedUnion('action', [
  z.strictObject({ action: z.literal('merge'), other: z.uuid() }),
  z.strictObject({ action: z.literal('split') }),
  z.strictObject({ action: z.literal('apart'), other: z.uuid() }),
  z.strictObject({ action: z.literal('restore') }),
]);

/** Merges, splits, tells apart or brings back. @throws NotFoundError, RefusedError with the reason */
export async function actOnThing(
  app: App,
  uid: string,
  asked: z.infer<typeof thingActionSchema>,
): Promise<void> {
  const { db } = app;
  if (asked.action === 'merge') await mergeItems(db, uid, asked.other);
  else if (asked.action === 'split') await splitItem(db, uid);
  else if (asked.action === 'apart') await tellApart(db, uid, asked.other);
  else await setThingDeleted(db, uid, false);
}

/** Takes a thing out of the lists; studies that have it keep it. @throws NotFoundError */
export const dropItem = (app: App, uid: string): Promise<void> =>
  setThingDeleted(app.db, uid, true);

/** One thing. @throws NotFoundError */
export const thingOf = (app: App, uid: string): Promise<CatalogueItem> => findItem(app.db, uid);

/** Things of a kind that are in the lists. */
export const thingsOf = (app: App, kind: ItemKind): Promise<CatalogueItem[]> =>
  listItems(app.db, kind);

/** Two things that may be one, to be asked about. */
export interface AskedPair {
  one: { uid: string; name: string; studies: string[] };
  other: { uid: string; name: string; studies: string[] };
  /** What they have in common. */
  by: string;
}

/** Pairs of a kind that are plainly the same and that nobody has decided on. */
export async function askedPairs(app: App, kind: ItemKind): Promise<AskedPair[]> {
  const { db } = app;
  const [known, apart, uses, things] = await Promise.all([
    knownItems(db, kind),
    pairsApart(db),
    usesOfThings(db, kind),
    listItems(db, kind),
  ]);
  const names = new Map(things.map((one) => [one.uid, one.name]));
  const side = (uid: string) => ({
    uid,
    name: names.get(uid) ?? '',
    studies: uses.filter((use) => use.uid === uid).map((use) => use.title),
  });
  return proposeSame(known, apart).map(({ one, other, by }) => ({
    one: side(one),
    other: side(other),
    by,
  }));
}

/** What a thing was in a study, where that is not what it is today. */
export interface ThenAndToday {
  study_id: string;
  title: string;
  differences: FactDifference[];
}

/** The studies in which a thing was another than it is today. */
export async function thenAndToday(app: App, thing: CatalogueItem): Promise<ThenAndToday[]> {
  const uses = await usesOfThings(app.db, thing.kind, thing.uid);
  return uses.flatMap(({ study_id, title, row }) => {
    const differences = factDifferences(thing.kind, factsOf(thing.kind, row), thing.facts);
    return differences.length > 0 ? [{ study_id, title, differences }] : [];
  });
}

/** What was merged into a thing, to be taken back. */
export const mergedOf = (app: App, thing: CatalogueItem) => mergedInto(app.db, thing.uid);
