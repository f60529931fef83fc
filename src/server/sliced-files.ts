import type { Readable } from 'node:stream';
import {
  addSlicedFile,
  appendUpload,
  beginUpload,
  estimateOfFile,
  findRow,
  findSlicedFile,
  finishUpload,
  insertRow,
  isStored,
  linkStored,
  listRows,
  pathOfContent,
  removeSlicedFile,
  setPurpose,
  setReading,
  slicedFacts,
  updateRow,
  type SlicedFile,
} from '../data';
import { app } from './app';
import { RequestError } from './http/problem';
import { queueReading, queueUnread } from './jobs';

/** The largest sliced file that is taken. */
export const LARGEST_SLICED = 500 * 1024 * 1024;

const ENDINGS = /\.(?:gcode|gco|g|nc|3mf|gz)$/i;

/** A file that somebody wants to upload. */
export interface Announced {
  name: string;
  bytes: number;
  sha256: string;
}

/** Where an announced file stands: a file of the study already, or so much of it has arrived. */
export type Arrival = { path: string; isKnown: boolean } | { received: number };

/** Says whether a file must be sent at all, and from where on. */
export async function announce(
  studyId: string,
  file: Announced,
  who: string | null,
): Promise<Arrival> {
  const { db } = app();
  if (!ENDINGS.test(file.name)) {
    throw new RequestError(
      422,
      `${file.name} is no sliced file: its name must end in .gcode, .gco, .g, .nc, .gz or .3mf.`,
    );
  }
  if (file.bytes > LARGEST_SLICED) {
    throw new RequestError(413, `${file.name} is over 500 MiB.`);
  }
  const known = await pathOfContent(db, studyId, file.sha256);
  if (known !== null) {
    await enter(studyId, known, who);
    return { path: known, isKnown: true };
  }
  if (await isStored(db, file.sha256)) {
    const path = await freePath(studyId, file.name);
    await linkStored(db, studyId, path, file.sha256);
    await enter(studyId, path, who);
    return { path, isKnown: false };
  }
  const { received } = await beginUpload(db, studyId, file);
  return received === file.bytes ? finish(studyId, file.sha256, file.name, who) : { received };
}

/** Takes the next bytes of an announced file; with the last ones it becomes a file of the study. */
export async function takeBytes(
  studyId: string,
  sha256: string,
  offset: number,
  content: Readable,
  who: string | null,
): Promise<Arrival> {
  const upload = await appendUpload(app().db, studyId, sha256, offset, content);
  return upload.received === upload.bytes
    ? finish(studyId, sha256, upload.name, who)
    : { received: upload.received };
}

async function finish(
  studyId: string,
  sha256: string,
  name: string,
  who: string | null,
): Promise<Arrival> {
  const path = await freePath(studyId, name);
  await finishUpload(app().db, studyId, sha256, path);
  await enter(studyId, path, who);
  return { path, isKnown: false };
}

async function enter(studyId: string, path: string, who: string | null): Promise<void> {
  const purpose = { contender_id: null, artefact_id: null, is_confirmed: false };
  await addSlicedFile(app().db, studyId, path, purpose, who);
  const { state } = await findSlicedFile(app().db, studyId, path);
  if (state === 'waiting') await queueReading(app(), studyId, path);
}

/** A path for a file of that name that no other file of the study has. */
async function freePath(studyId: string, name: string): Promise<string> {
  const base = name
    .slice(Math.max(name.lastIndexOf('/'), name.lastIndexOf('\\')) + 1)
    .replace(/[^\p{L}\p{N}._-]+/gu, '-')
    .replace(/^[.-]+/, '')
    .slice(-120);
  const at = base.indexOf('.');
  const [stem, ending] = at > 0 ? [base.slice(0, at), base.slice(at)] : [base, ''];
  const taken = new Set((await slicedPaths(studyId)).map((path) => path.toLowerCase()));
  for (let count = 1; ; count += 1) {
    const path = `sliced/${stem}${count > 1 ? `-${count}` : ''}${ending}`;
    if (!taken.has(path.toLowerCase())) return path;
  }
}

const slicedPaths = async (studyId: string): Promise<string[]> =>
  (await slicedFacts(app().db, studyId)).map((file) => file.path);

/** What a person says a file is for. */
export interface Confirmed {
  contender_id: string;
  artefact_id: string;
  /** Whether the prints of that cell that name no file are to name this one. */
  link_prints: boolean;
}

/**
 * Keeps what a file is for: the plan uses it for that contender and artefact, and it is read again
 * where the machine is another one than was thought.
 */
export async function confirmPurpose(
  studyId: string,
  path: string,
  { contender_id, artefact_id, link_prints }: Confirmed,
  who: string | null,
): Promise<SlicedFile> {
  const { db } = app();
  await findSlicedFile(db, studyId, path);
  await findRow(db, studyId, 'contenders', { contender_id });
  await findRow(db, studyId, 'artefacts', { artefact_id });
  await setPurpose(db, studyId, path, { contender_id, artefact_id, is_confirmed: true });
  await planWith(studyId, path, contender_id, artefact_id, who);
  if (link_prints) await linkPrints(studyId, path, contender_id, artefact_id, who);
  await queueUnread(app());
  return findSlicedFile(db, studyId, path);
}

/** Has the plan print a cell from a file. A cell that is not planned yet is planned once. */
async function planWith(
  studyId: string,
  path: string,
  contender_id: string,
  artefact_id: string,
  who: string | null,
): Promise<void> {
  const { db } = app();
  const planned = await listRows(db, studyId, 'planned');
  const own = planned.filter(
    (row) => row.contender_id === contender_id && row.artefact_id === artefact_id,
  );
  for (const row of own) {
    const key = { contender_id, artefact_id, material_id: row.material_id ?? null };
    await updateRow(db, studyId, 'planned', key, { toolpath: path }, row.row_version, who);
  }
  if (own.length > 0) return;
  const prints = await listRows(db, studyId, 'prints');
  const materials = await listRows(db, studyId, 'materials');
  const same = prints.filter((row) => row.artefact_id === artefact_id);
  const material = same.at(-1)?.material_id ?? materials[0]?.material_id;
  if (material == null) return;
  const repeats = Math.max(1, ...same.map((row) => Number(row.repeat)));
  const row = { contender_id, artefact_id, material_id: material, repeats, toolpath: path };
  await insertRow(db, studyId, 'planned', row, who);
}

async function linkPrints(
  studyId: string,
  path: string,
  contender_id: string,
  artefact_id: string,
  who: string | null,
): Promise<void> {
  const { db } = app();
  const estimate_s = await estimateOfFile(db, studyId, path);
  for (const table of ['prints', 'open_prints'] as const) {
    for (const row of await listRows(db, studyId, table)) {
      if (row.contender_id !== contender_id || row.artefact_id !== artefact_id) continue;
      if (row.toolpath !== null) continue;
      const change = {
        toolpath: path,
        ...(row.estimate_s === null && { estimate_s }),
      };
      const key = { print_id: row.print_id ?? null };
      await updateRow(db, studyId, table, key, change, row.row_version, who);
    }
  }
}

/** Reads a file again that could not be read. */
export async function readAgain(studyId: string, path: string): Promise<SlicedFile> {
  await findSlicedFile(app().db, studyId, path);
  await setReading(app().db, studyId, path, 'waiting', 0);
  await queueReading(app(), studyId, path);
  return findSlicedFile(app().db, studyId, path);
}

/** Takes a file out of the study, unless a print or the plan names it. */
export async function takeOut(studyId: string, path: string): Promise<void> {
  const { db } = app();
  await findSlicedFile(db, studyId, path);
  for (const table of ['prints', 'open_prints', 'planned'] as const) {
    const rows = await listRows(db, studyId, table);
    const naming = rows.filter((row) => row.toolpath === path).length;
    if (naming > 0) {
      const what = table === 'planned' ? 'The plan' : `${naming} of the prints`;
      throw new RequestError(422, `${what} still names this file: choose another one there first.`);
    }
  }
  await removeSlicedFile(db, studyId, path);
}
