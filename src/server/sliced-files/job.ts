import { createWriteStream } from 'node:fs';
import { basename, join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { MessageChannel } from 'node:worker_threads';
import {
  findSlicedFile,
  loadStudy,
  NotFoundError,
  readFile,
  setFacts,
  setReading,
  setReadShare,
  type SlicedFile,
} from '../../data';
import { withFolder } from '../../files/temporary';
import type { App } from '../app';
import type { SlicedFileJob } from '../jobs';
import type { ReadTask } from '../../files/sliced';

/** The tables that a file is matched to. */
const LINE_UP = ['contenders', 'machines', 'profiles', 'profile_settings', 'artefacts'] as const;

/** Reads a sliced file in a worker thread and keeps what it says; its progress shows meanwhile. */
export async function readSlicedFile(
  app: App,
  { studyId, path }: SlicedFileJob,
  isLastTry: boolean,
): Promise<void> {
  const { db } = app;
  const file = await findSlicedFile(db, studyId, path).catch(ifGone);
  if (!file) return;
  await setReading(db, studyId, path, 'reading', 0);
  try {
    await withFolder('reading', async (folder) => {
      const copy = join(folder, `file${path.slice(path.lastIndexOf('.'))}`);
      await pipeline(readFile(db, file.sha256), createWriteStream(copy));
      await readCopy(app, studyId, file, copy);
    });
  } catch (error) {
    if (isLastTry) {
      await setReading(db, studyId, path, 'failed', 0, 'its reading broke down twice');
    }
    throw error;
  }
}

/** Has a thread read a file's copy on disk, and keeps what it finds. */
async function readCopy(app: App, studyId: string, file: SlicedFile, copy: string): Promise<void> {
  const { db } = app;
  const { path } = file;
  const loaded = await loadStudy(db, studyId, LINE_UP).catch(ifGone);
  if (!loaded) return;
  const { port1, port2 } = new MessageChannel();
  port1.on('message', (share: number) => {
    setReadShare(db, studyId, path, share).catch((error: unknown) =>
      app.log.error(error, 'progress'),
    );
  });
  try {
    const task: ReadTask = {
      path: copy,
      name: basename(path),
      confirmed: file.is_confirmed ? file : null,
      lineUp: loaded.study.tables,
      port: port2,
    };
    const outcome = await app.readers.run(task, { transferList: [port2] });
    if (outcome.isRefused) await setReading(db, studyId, path, 'failed', 0, outcome.message);
    else {
      const guessed = file.is_confirmed ? null : outcome.purpose;
      await setFacts(db, studyId, path, outcome.facts, guessed, app.edition).catch(ifGone);
    }
  } finally {
    port1.close();
  }
}

const ifGone = (error: unknown): null => {
  if (error instanceof NotFoundError) return null;
  throw error;
};
