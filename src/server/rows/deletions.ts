import * as z from 'zod';
import { tableSpec, asColumns } from '../../core/model/study';
import {
  DELETABLE,
  deleteWhole,
  findRow,
  findStudy,
  listDeletions,
  lookAtDeletion,
  panelsWith,
  restoreWhole,
  rowOrNull,
  writeStudy,
  type Deletable,
  type DeletedCount,
  type Deletion,
  type RowKey,
  type Write,
} from '../../data';
import { checkOwn } from '../access/own';
import { afterwards, type App } from '../app';
import { RequestError } from '../http/problem';
import { queueUnmade } from '../jobs';
import { keyFrom } from './address';

/** What is to be deleted: a row of a table, by the values of its key. */
export const deletionSchema = z.strictObject({
  table: z.enum(DELETABLE),
  key: z.array(z.string().max(1000)).min(1).max(2),
});

type Asked = z.infer<typeof deletionSchema>;

/** What goes with a row, to be read before it is deleted. @throws NotFoundError */
export const previewDeletion = (
  app: App,
  studyId: string,
  { table, key }: Asked,
): Promise<{ title: string; counts: DeletedCount[] }> =>
  writeStudy(app.db, studyId, null, async (write) => {
    const named = keyOf(table, key);
    return {
      title: await titleOf(write, table, named),
      counts: await lookAtDeletion(write, table, named),
    };
  });

/**
 * Deletes a print, a specimen, an incident or a photo with everything that belongs to it. It can
 * be restored for 30 days.
 *
 * @throws RequestError where judges are looking at a part of it, or where somebody else entered it
 */
export const deleteFromStudy = (
  app: App,
  studyId: string,
  { table, key }: Asked,
  who: string | null,
): Promise<{ deletion_id: string; title: string; counts: DeletedCount[] }> =>
  writeStudy(app.db, studyId, who, async (write) => {
    const named = keyOf(table, key);
    if (table !== 'photos' || named.specimen_id) await checkOwn(write, table, named);
    await checkNotJudged(write, table, named);
    const title = await titleOf(write, table, named);
    return { title, ...(await deleteWhole(write, { table, key: named, title })) };
  });

/** Restores what was deleted from a study, as it was. */
export async function restoreToStudy(
  app: App,
  studyId: string,
  deletionId: string,
  who: string | null,
): Promise<{ counts: DeletedCount[] }> {
  const counts = await writeStudy(app.db, studyId, who, (write) => restoreWhole(write, deletionId));
  afterwards(app, () => queueUnmade(app, studyId));
  return { counts };
}

/** What was deleted from a study and can be restored. @throws NotFoundError */
export async function deletionsOf(app: App, studyId: string): Promise<Deletion[]> {
  await findStudy(app.db, studyId);
  return listDeletions(app.db, studyId);
}

/** What was deleted from any study and can be restored. */
export const allDeletions = (app: App): Promise<Deletion[]> => listDeletions(app.db, null);

type NamedKey = RowKey & { specimen_id?: unknown; path?: unknown };

/** A photo may be named by its path alone, where it is filed under no specimen. */
const keyOf = (table: Deletable, key: readonly string[]): NamedKey =>
  table === 'photos' && key.length === 1 ? { path: key[0] } : keyFrom(table, key);

/** What a row is, as a person would say it. */
async function titleOf(write: Write, table: Deletable, key: RowKey): Promise<string> {
  const { db, studyId } = write;
  if (table === 'prints') return printTitle(write, String(asColumns(key).print_id));
  if (table === 'photos') return `Photo ${String(asColumns(key).path)}`;
  if (table === 'incidents') {
    const incident = await findRow(db, studyId, 'incidents', {
      incident_id: asColumns(key).incident_id,
    });
    const of =
      incident.print_id === null ? '' : ` of ${await printTitle(write, incident.print_id)}`;
    return `Incident (${incident.mode})${of}`;
  }
  const specimen = await findRow(db, studyId, 'specimens', {
    specimen_id: asColumns(key).specimen_id,
  });
  return `Part ${specimen.code ?? specimen.specimen_id} of ${await printTitle(write, specimen.print_id)}`;
}

async function printTitle({ db, studyId }: Write, print_id: string): Promise<string> {
  const print = await rowOrNull(db, studyId, 'prints', { print_id });
  if (!print) return `print ${print_id}`;
  const { artefact_id, contender_id, repeat } = print;
  const artefact = await rowOrNull(db, studyId, 'artefacts', { artefact_id });
  const contender = await rowOrNull(db, studyId, 'contenders', { contender_id });
  return `${artefact?.name ?? artefact_id}, ${contender?.label ?? contender_id}, repeat ${repeat}`;
}

/** Parts that judges see at the moment stay. */
async function checkNotJudged(write: Write, table: Deletable, key: NamedKey): Promise<void> {
  const shown =
    table === 'photos'
      ? await panelsWith(write, { path: String(asColumns(key).path) })
      : await panelsOfParts(write, table, key);
  const [first] = shown;
  if (!first) return;
  throw new RequestError(
    409,
    `Judges see ${tableSpec(table).title} of this in the panel “${first.aspect}”: take the ` +
      'specimen from the panel first, with a reason.',
  );
}

async function panelsOfParts(write: Write, table: Deletable, key: NamedKey) {
  if (table === 'incidents') return [];
  if (table === 'specimens') return panelsWith(write, { specimen_id: String(key.specimen_id) });
  return panelsWith(write, { print_id: String(asColumns(key).print_id) });
}
