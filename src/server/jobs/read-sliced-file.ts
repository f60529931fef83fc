import { createWriteStream } from 'node:fs';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { basename, join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { MessageChannel } from 'node:worker_threads';
import {
  findSlicedFile,
  keepFacts,
  loadStudy,
  NotFoundError,
  readFile,
  setPurpose,
  setReading,
} from '../../data';
import type { App } from '../app';
import type { ReadOutcome, ReadTask } from '../toolpaths';

export interface SlicedFileJob {
  studyId: string;
  path: string;
}

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
  const folder = await mkdtemp(join(tmpdir(), 'vergleich-sliced-'));
  const { port1, port2 } = new MessageChannel();
  try {
    const copy = join(folder, `file${path.slice(path.lastIndexOf('.'))}`);
    await pipeline(readFile(db, file.sha256), createWriteStream(copy));
    port1.on('message', (share: number) => {
      setReading(db, studyId, path, 'reading', share).catch((error: unknown) =>
        app.log.error(error, 'progress'),
      );
    });
    const { study } = await loadStudy(db, studyId, LINE_UP);
    const task: ReadTask = {
      path: copy,
      name: basename(path),
      confirmed: file.is_confirmed ? file : null,
      lineUp: study.tables,
      port: port2,
    };
    const options = { transferList: [port2] };
    const outcome = (await app.readers.run(task, options)) as ReadOutcome;
    if ('message' in outcome) await setReading(db, studyId, path, 'failed', 0, outcome.message);
    else {
      if (!file.is_confirmed) {
        await setPurpose(db, studyId, path, { ...outcome.purpose, is_confirmed: false });
      }
      await keepFacts(db, studyId, path, outcome.facts, app.edition);
    }
  } catch (error) {
    if (isLastTry) {
      await setReading(db, studyId, path, 'failed', 0, 'its reading broke down twice');
    }
    throw error;
  } finally {
    port1.close();
    await rm(folder, { recursive: true, force: true });
  }
}

const ifGone = (error: unknown): null => {
  if (error instanceof NotFoundError) return null;
  throw error;
};
