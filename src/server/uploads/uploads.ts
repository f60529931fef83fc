import type { Readable } from 'node:stream';
import {
  appendUpload,
  beginUpload,
  dropUpload,
  findStudy,
  finishUpload,
  freePath,
  isStored,
  linkFile,
  readFile,
  uploadBegunBy,
  verifyUpload,
  NotFoundError,
  writeStudy,
  type Upload,
  type Write,
} from '../../data';
import { mayNow, presentWorker } from '../http/actor';
import { checkWork } from '../access/tries';
import type { App } from '../app';
import { RequestError } from '../http/problem';

/** A file that somebody wants to upload. */
export interface Announced {
  name: string;
  bytes: number;
  sha256: string;
  /** What the sender states about it, as its kind reads it. */
  told?: Told | undefined;
}

/** What somebody says of a file before it has arrived. */
export type Told = Record<string, unknown>;

/** What is done with the files of a kind that are uploaded. */
export interface UploadKind {
  /** The folder of the study in which they lie. */
  folder: string;
  /** The most bytes of one. */
  largest: number;
  /** Refuses what can be refused by its name. @throws RequestError */
  checkName(name: string): void;
  /** Refuses what can be refused by its content, of which nothing is kept then. @throws RequestError */
  checkContent?(content: AsyncIterable<Uint8Array>): Promise<void>;
  /** The file of the study that is this content already; null where there is none of its kind. */
  known(study: Pick<Write, 'db' | 'studyId'>, sha256: string): Promise<string | null>;
  /** Refuses a statement about a file that cannot be true. @throws NotFoundError, RequestError */
  checkTold?(write: Write, told: Told): Promise<void>;
  /** Enters a file that has arrived with the sender’s statement, within the write that made it a file of the study. */
  enter(write: Write, path: string, name: string, told: Told | null): Promise<void>;
  /** What follows once it is kept. */
  follow(app: App, studyId: string, path: string): void;
}

/** Where an announced file stands: a file of the study already, or so much of it has arrived. */
export type Arrival = { path: string; isKnown: boolean } | { received: number };

const formatMiB = (bytes: number): string => `${Math.round(bytes / 1024 ** 2)} MiB`;

/** Says whether a file must be sent at all, and from where on. */
export async function announceFile(
  app: App,
  kind: UploadKind,
  studyId: string,
  file: Announced,
  who: string | null,
): Promise<Arrival> {
  const { db } = app;
  kind.checkName(file.name);
  if (file.bytes > kind.largest) {
    throw new RequestError(413, `${file.name} is over ${formatMiB(kind.largest)}.`);
  }
  await checkWork(app, 'files');
  const arrival = await writeStudy(db, studyId, who, async (write): Promise<Arrival> => {
    const known = await kind.known(write, file.sha256);
    if (known !== null) {
      await kind.enter(write, known, file.name, null);
      return { path: known, isKnown: true };
    }
    if (file.told) await kind.checkTold?.(write, file.told);
    if (await isStored(write.db, file.sha256)) {
      await kind.checkContent?.(readFile(write.db, file.sha256));
      const path = await pathFor(write, kind.folder, file.name);
      await linkFile(write, path, file.sha256);
      await kind.enter(write, path, file.name, file.told ?? null);
      return { path, isKnown: false };
    }
    const { received } = await beginUpload(write, { ...file, told: file.told ?? null });
    return { received };
  });
  if ('path' in arrival) kind.follow(app, studyId, arrival.path);
  else if (arrival.received === file.bytes) {
    return finish(app, kind, studyId, { ...file, told: file.told ?? null }, who);
  }
  return arrival;
}

/**
 * Takes the next bytes of an announced file; with the last ones it becomes a file of the study. Bytes
 * that come once more after that, as their answer never arrived, are answered by the file.
 */
export async function takeBytes(
  app: App,
  kind: UploadKind,
  studyId: string,
  sha256: string,
  offset: number,
  content: Readable,
  who: string | null,
): Promise<Arrival> {
  const { db } = app;
  await findStudy(db, studyId);
  try {
    const upload = await appendUpload(db, studyId, sha256, offset, content);
    return upload.received === upload.bytes
      ? await finish(app, kind, studyId, upload, who)
      : { received: upload.received };
  } catch (error) {
    const path = error instanceof NotFoundError && (await kind.known({ db, studyId }, sha256));
    if (!path) throw error;
    return { path, isKnown: true };
  }
}

/** Gives an upload up: one's own, or anybody's for those who may edit. @throws RequestError 403 */
export async function giveUpUpload(app: App, studyId: string, sha256: string): Promise<void> {
  const { db } = app;
  await findStudy(db, studyId);
  const by = await uploadBegunBy(db, studyId, sha256);
  if (by !== undefined && !mayNow('edit') && by !== (presentWorker()?.id ?? null)) {
    throw new RequestError(403, 'Somebody else is sending this file.');
  }
  await dropUpload(db, studyId, sha256);
}

async function finish(
  app: App,
  kind: UploadKind,
  studyId: string,
  { sha256, name, told = null }: Pick<Upload, 'sha256' | 'name' | 'told'>,
  who: string | null,
): Promise<Arrival> {
  const { db } = app;
  const content = await verifyUpload(db, studyId, sha256);
  try {
    await kind.checkContent?.(content);
  } catch (error) {
    await dropUpload(db, studyId, sha256);
    throw error;
  }
  const path = await writeStudy(db, studyId, who, async (write) => {
    const free = await pathFor(write, kind.folder, name);
    await finishUpload(write, sha256, free);
    await kind.enter(write, free, name, told);
    return free;
  });
  kind.follow(app, studyId, path);
  return { path, isKnown: false };
}

/** A path for a file of that name that no other file of the study has. */
function pathFor(write: Write, folder: string, name: string): Promise<string> {
  const base = name
    .slice(Math.max(name.lastIndexOf('/'), name.lastIndexOf('\\')) + 1)
    .replace(/[^\p{L}\p{N}._-]+/gu, '-')
    .replace(/^[.-]+/, '')
    .slice(-120);
  const at = base.indexOf('.');
  const [stem, ending] = at > 0 ? [base.slice(0, at), base.slice(at)] : ['file', `.${base}`];
  return freePath(write, folder, stem, ending);
}
