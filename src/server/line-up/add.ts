import * as z from 'zod';
import { idFrom, normaliseSetting, type Row, rowsAsColumns } from '../../core/model/study';
import {
  factsOf,
  KINDS,
  nameOfThing,
  type Facts,
  type ItemKind,
} from '../../core/answers/workshop';
import {
  findFile,
  findItem,
  freePath,
  linkFile,
  listRows,
  listRowsBy,
  rowOrNull,
  updateRow,
  deleteRow,
  thingCalled,
  itemsOfStudy,
  usesOfThings,
  writeStudy,
  type CatalogueItem,
  type Write,
} from '../../data';
import type { App } from '../app';
import { PARTS } from '../artefacts';
import { RequestError } from '../http/problem';
import { insertChecked } from '../rows';

const name = z.string().trim().min(1, 'give it a name').max(300);

/** A thing of the workshop, or a new one by its name. */
const picked = z.union([
  z.strictObject({ uid: z.uuid() }),
  z.strictObject({ name, evenIfNamed: z.boolean().optional() }),
]);

/** What is added to a line-up. */
export const addSchema = z.discriminatedUnion('add', [
  z.strictObject({ add: z.literal('machine'), picked }),
  z.strictObject({ add: z.literal('material'), picked }),
  z.strictObject({ add: z.literal('instrument'), picked }),
  z.strictObject({ add: z.literal('artefact'), picked }),
  z.strictObject({ add: z.literal('tuned'), contender_id: z.string().max(64) }),
]);

type Asked = z.infer<typeof addSchema>;
type Picked = z.infer<typeof picked>;

/** The id of what was added. */
export interface Added {
  id: string;
}

/**
 * Adds a machine as it is shipped, a tuned profile beside it, a part of the library, a material or an
 * instrument: one action, one transaction.
 *
 * @throws RequestError where it is there already, or something of the workshop is called the same and it
 * was not said that there are two
 */
export const addToLineUp = (
  app: App,
  studyId: string,
  asked: Asked,
  who: string | null,
): Promise<Added> => writeStudy(app.db, studyId, who, (write) => addIn(write, asked));

/** The same as a part of a write. */
export async function addIn(write: Write, asked: Asked): Promise<Added> {
  switch (asked.add) {
    case 'machine':
      return addMachine(write, asked.picked);
    case 'tuned':
      return addTuned(write, asked.contender_id);
    case 'artefact':
      return addArtefactOf(write, asked.picked);
    case 'material':
    case 'instrument':
      return addThingRow(write, asked.add, asked.picked);
  }
}

/** The thing that was picked; null of a new one, once nobody is called the same. */
async function thingOf(write: Write, kind: ItemKind, asked: Picked): Promise<CatalogueItem | null> {
  if ('uid' in asked) {
    const thing = await findItem(write.db, asked.uid);
    if (thing.kind !== kind) throw new RequestError(422, `${thing.name} is no ${kind}.`);
    const here = (await itemsOfStudy(write.db, write.studyId, kind)).some(
      (one) => one.uid === thing.uid,
    );
    if (here) throw new RequestError(409, `${thing.name} is in this study already.`);
    return thing;
  }
  const { table } = KINDS[kind];
  const rows = rowsAsColumns(await listRows(write.db, write.studyId, table));
  const same = (text: string) => text.toLowerCase() === asked.name.toLowerCase();
  if (rows.some((row) => same(nameOfThing(kind, factsOf(kind, row))))) {
    throw new RequestError(409, `${asked.name} is in this study already.`);
  }
  const twin = await thingCalled(write.db, kind, asked.name);
  if (twin && !asked.evenIfNamed) {
    throw new RequestError(
      409,
      `The workshop has a ${kind} ${twin.name}. Is it that one, or a second one?`,
      { current: { uid: twin.uid, name: twin.name } },
    );
  }
  return null;
}

/** A free id of a table, made of a name. */
async function freeId(write: Write, kind: ItemKind | 'contender', from: string): Promise<string> {
  const [table, column] =
    kind === 'contender'
      ? (['contenders', 'contender_id'] as const)
      : ([KINDS[kind].table, KINDS[kind].id] as const);
  const rows = rowsAsColumns(await listRows(write.db, write.studyId, table));
  return idFrom(
    from,
    rows.map((row) => String(row[column])),
    kind,
  );
}

/** A row of a kind with the facts of its thing, or with those of a new one. */
async function addThingRow(
  write: Write,
  kind: ItemKind,
  asked: Picked,
  more: Facts = {},
): Promise<Added> {
  const thing = await thingOf(write, kind, asked);
  const { table, id } = KINDS[kind];
  const own: Facts = thing
    ? { ...thing.facts, uid: thing.uid }
    : kind === 'material'
      ? { type: nameIn(asked) }
      : { name: nameIn(asked) };
  const key = await freeId(write, kind, thing?.name ?? nameIn(asked));
  await insertChecked(write, table, { [id]: key, ...own, ...more });
  return { id: key };
}

const nameIn = (asked: Picked): string => ('name' in asked ? asked.name : '');

async function addMachine(write: Write, asked: Picked): Promise<Added> {
  const { db, studyId } = write;
  const { id: machine_id } = await addThingRow(write, 'machine', asked);
  const machine = await rowOrNull(db, studyId, 'machines', { machine_id });
  const called = machine?.name ?? machine_id;
  const profile_id = await addStock(write, 'uid' in asked ? asked.uid : null, called);
  const contender_id = await freeId(write, 'contender', `${called} stock`);
  await insertChecked(write, 'contenders', {
    contender_id,
    label: `${called} stock`,
    machine_id,
    profile_id,
    change: null,
  });
  return { id: contender_id };
}

/** The machine's own stock profile as a study before had it, with its settings; else an empty one. */
async function addStock(write: Write, machine: string | null, called: string): Promise<string> {
  const { db } = write;
  for (const use of machine === null ? [] : await usesOfThings(db, 'machine', machine)) {
    if (use.study_id === write.studyId) continue;
    const contenders = await listRowsBy(db, use.study_id, 'contenders', 'machine_id', use.id);
    for (const { profile_id } of contenders) {
      const before = await rowOrNull(db, use.study_id, 'profiles', { profile_id });
      if (before?.kind !== 'stock') continue;
      const thing = (await itemsOfStudy(db, use.study_id, 'profile')).find(
        (one) => one.id === profile_id,
      );
      const here = (await itemsOfStudy(db, write.studyId, 'profile')).find(
        (one) => one.uid === thing?.uid,
      );
      if (here) return here.id;
      const id = await freeId(write, 'profile', before.name);
      const { row_version: _, ...row } = before;
      await insertChecked(write, 'profiles', {
        ...row,
        profile_id: id,
        parent_id: null,
        uid: thing?.uid ?? null,
      });
      await copySettings(write, use.study_id, profile_id, id);
      return id;
    }
  }
  const id = await freeId(write, 'profile', `${called} as shipped`);
  await insertChecked(write, 'profiles', {
    profile_id: id,
    name: `${called}, as shipped`,
    kind: 'stock',
  });
  return id;
}

async function copySettings(write: Write, study: string, from: string, to: string): Promise<void> {
  const settings = await listRowsBy(write.db, study, 'profile_settings', 'profile_id', from);
  for (const { key, value } of settings) {
    await insertChecked(write, 'profile_settings', { profile_id: to, key, value });
  }
}

/** A tuned profile beside a contender: its stock profile's settings, to be changed. */
async function addTuned(write: Write, contenderId: string): Promise<Added> {
  const { db, studyId } = write;
  const contender = await rowOrNull(db, studyId, 'contenders', { contender_id: contenderId });
  const machine =
    contender && (await rowOrNull(db, studyId, 'machines', { machine_id: contender.machine_id }));
  const profile =
    contender && (await rowOrNull(db, studyId, 'profiles', { profile_id: contender.profile_id }));
  if (!contender || !machine || !profile)
    throw new RequestError(404, 'There is no such contender.');
  const parent_id = profile.kind === 'stock' ? profile.profile_id : profile.parent_id;
  const before = (await listRowsBy(db, studyId, 'contenders', 'machine_id', machine.machine_id))
    .length;
  const turn = before > 1 ? ` ${before}` : '';
  const profile_id = await freeId(write, 'profile', `${machine.name} tuned`);
  await insertChecked(write, 'profiles', {
    profile_id,
    name: `${machine.name}, ours${turn}`,
    kind: 'tuned',
    parent_id,
  });
  await copySettings(write, studyId, profile.profile_id, profile_id);
  const contender_id = await freeId(write, 'contender', `${machine.name} tuned`);
  await insertChecked(write, 'contenders', {
    contender_id,
    label: `${machine.name} tuned${turn}`,
    machine_id: machine.machine_id,
    profile_id,
    change: null,
  });
  return { id: contender_id };
}

/** A part of the library with all that is looked at on it, as the study begun last has it. */
async function addArtefactOf(write: Write, asked: Picked): Promise<Added> {
  const { db, studyId } = write;
  const uses = 'uid' in asked ? await usesOfThings(db, 'artefact', asked.uid) : [];
  const use = uses.find((one) => one.study_id !== studyId);
  const row = use?.row as Row<'artefacts'> | undefined;
  const file = use && row?.mesh ? await findFile(db, use.study_id, row.mesh) : null;
  let mesh: string | null = null;
  if (file) {
    const [, stem = 'mesh', ending = ''] = /([^/]+?)(\.[^./]*)?$/.exec(file.path) ?? [];
    mesh = await freePath(write, 'meshes', stem, ending);
    await linkFile(write, mesh, file.sha256);
  }
  const { id } = await addThingRow(write, 'artefact', asked, {
    mesh,
    mesh_sha256: file?.sha256 ?? row?.mesh_sha256 ?? null,
  });
  if (!use) return { id };
  for (const table of PARTS) {
    for (const { row_version: _, ...part } of await listRowsBy(
      db,
      use.study_id,
      table,
      'artefact_id',
      use.id,
    )) {
      await insertChecked(write, table, { ...part, artefact_id: id });
    }
  }
  return { id };
}

/** One setting of a profile; null makes it unknown. */
export const settingSchema = z.strictObject({
  profile_id: z.string().max(64),
  key: name,
  value: z.string().trim().min(1).max(2000).nullable(),
});

/** Sets one setting of a profile under the name that we have for it. */
export const setSetting = (
  app: App,
  studyId: string,
  asked: z.infer<typeof settingSchema>,
  who: string | null,
): Promise<{ profile_id: string; key: string; value: string | null }> =>
  writeStudy(app.db, studyId, who, async (write) => {
    const { profile_id, value } = asked;
    const [key] = normaliseSetting(asked.key, '');
    const own = await listRowsBy(write.db, studyId, 'profile_settings', 'profile_id', profile_id);
    // It may stand under the name that a file has for it.
    const before = own.find((row) => normaliseSetting(row.key, '')[0] === key);
    const said = value === null ? null : String(normaliseSetting(key, value)[1]);
    if (!before && said !== null)
      await insertChecked(write, 'profile_settings', { profile_id, key, value: said });
    else if (before) {
      const at = { profile_id, key: before.key };
      if (said === null) await deleteRow(write, 'profile_settings', at, before.row_version);
      else if (said !== before.value)
        await updateRow(write, 'profile_settings', at, { value: said }, before.row_version);
    }
    return { profile_id, key, value: said };
  });
