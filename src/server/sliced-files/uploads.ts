import type { Readable } from 'node:stream';
import {
  appendUpload,
  beginUpload,
  dropUpload,
  findSlicedFile,
  findStudy,
  finishUpload,
  freePath,
  insertSlicedFile,
  isStored,
  linkFile,
  pathOfContent,
  verifyUpload,
  writeStudy,
  type Write,
} from '../../data';
import { afterwards, app } from '../app';
import { RequestError } from '../http/problem';
import { queueReading } from '../jobs';

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
export async function announceFile(
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
  const arrival = await writeStudy(db, studyId, who, async (write): Promise<Arrival> => {
    const known = await pathOfContent(write.db, studyId, file.sha256);
    if (known !== null) {
      await enter(write, known);
      return { path: known, isKnown: true };
    }
    if (await isStored(write.db, file.sha256)) {
      const path = await pathFor(write, file.name);
      await linkFile(write, path, file.sha256);
      await enter(write, path);
      return { path, isKnown: false };
    }
    const { received } = await beginUpload(write, file);
    return { received };
  });
  if ('path' in arrival) queueIfUnread(studyId, arrival.path);
  else if (arrival.received === file.bytes) return finish(studyId, file.sha256, file.name, who);
  return arrival;
}

/** Takes the next bytes of an announced file; with the last ones it becomes a file of the study. */
export async function takeBytes(
  studyId: string,
  sha256: string,
  offset: number,
  content: Readable,
  who: string | null,
): Promise<Arrival> {
  const { db } = app();
  await findStudy(db, studyId);
  const upload = await appendUpload(db, studyId, sha256, offset, content);
  return upload.received === upload.bytes
    ? finish(studyId, sha256, upload.name, who)
    : { received: upload.received };
}

/** Gives an upload up. */
export async function giveUpUpload(studyId: string, sha256: string): Promise<void> {
  await findStudy(app().db, studyId);
  await dropUpload(app().db, studyId, sha256);
}

async function finish(
  studyId: string,
  sha256: string,
  name: string,
  who: string | null,
): Promise<Arrival> {
  const { db } = app();
  await verifyUpload(db, studyId, sha256);
  const path = await writeStudy(db, studyId, who, async (write) => {
    const free = await pathFor(write, name);
    await finishUpload(write, sha256, free);
    await enter(write, free);
    return free;
  });
  queueIfUnread(studyId, path);
  return { path, isKnown: false };
}

async function enter(write: Write, path: string): Promise<void> {
  const purpose = { contender_id: null, artefact_id: null, is_confirmed: false };
  await insertSlicedFile(write, path, purpose);
  write.touch('sliced_files');
}

function queueIfUnread(studyId: string, path: string): void {
  afterwards(async () => {
    const { state } = await findSlicedFile(app().db, studyId, path);
    if (state === 'waiting') await queueReading(app(), studyId, path);
  });
}

/** A path for a file of that name that no other file of the study has. */
function pathFor(write: Write, name: string): Promise<string> {
  const base = name
    .slice(Math.max(name.lastIndexOf('/'), name.lastIndexOf('\\')) + 1)
    .replace(/[^\p{L}\p{N}._-]+/gu, '-')
    .replace(/^[.-]+/, '')
    .slice(-120);
  const at = base.indexOf('.');
  const [stem, ending] = at > 0 ? [base.slice(0, at), base.slice(at)] : ['file', `.${base}`];
  return freePath(write, 'sliced', stem, ending);
}
