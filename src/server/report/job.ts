import { WrongInputError } from '../../core/model/faults';
import { buffersOf } from '../../files/buffers';
import { createHash } from 'node:crypto';
import { createReadStream, createWriteStream, existsSync } from 'node:fs';
import { copyFile, mkdir, readdir, rename, stat, writeFile } from 'node:fs/promises';
import { join, relative } from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { writePackage } from '../../core/model/package';
import {
  publishable,
  studyUntil,
  type ReportModel,
  type RevisionFigures,
} from '../../core/text/report';
import {
  failRevision,
  figuresBefore,
  findRevision,
  finishRevision,
  listFiles,
  loadStudy,
  NotFoundError,
  readFile,
  setRevisionStep,
  storeContent,
  type ReportFile,
  type Revision,
} from '../../data';
import {
  FIGURES,
  sealed,
  type FrameTask,
  type ReportOutcome,
  type ReportTask,
} from '../../files/report';
import { withFolder } from '../../files/temporary';
import { isPackable, zipParts, type Part } from '../../files/zip-parts';
import type { App } from '../app';
import type { ReportJob } from '../jobs';
import { findBrowser, printPdf } from './pdf';

/** The report cannot be made as the study stands; the message says why. */
class UnmadeError extends WrongInputError {}

/** Makes a revision: freezes the data, computes them anew, writes every form, and keeps all at once. */
export async function makeReport(
  app: App,
  { studyId, number }: ReportJob,
  isLastTry: boolean,
): Promise<void> {
  try {
    const revision = await findRevision(app.db, studyId, number);
    if (revision.state === 'ready') return;
    await withFolder('report', (folder) => makeIn(app, folder, studyId, revision));
  } catch (error) {
    if (error instanceof NotFoundError) return;
    if (error instanceof UnmadeError) {
      await failRevision(app.db, studyId, number, error.message);
      return;
    }
    if (isLastTry) await failRevision(app.db, studyId, number, 'its making broke down twice');
    throw error;
  }
}

const onThread = async (app: App, task: ReportTask): Promise<ReportOutcome> => {
  const outcome = await app.reporters.run(task);
  if (outcome.isRefused) throw new UnmadeError(outcome.message);
  return outcome;
};

async function makeIn(
  app: App,
  work: string,
  studyId: string,
  { number, until, asked_at: askedAt }: Revision,
): Promise<void> {
  const { db } = app;
  const step = (what: string, share: number) =>
    setRevisionStep(db, studyId, number, askedAt, what, share);
  const folder = join(work, 'report');
  await mkdir(folder);
  await step('freezing the data', 0.02);
  const { study, names, files, revision } = await freezeData(
    app,
    studyId,
    until,
    join(work, 'data.zip'),
  );
  await step('computing every figure', 0.1);
  const outcome = await onThread(app, {
    do: 'model',
    data: join(work, 'data.zip'),
    number,
    frozenAt: until ?? new Date().toISOString(),
    before: await figuresBefore(db, studyId, number),
    into: join(work, MODEL),
  });
  if (!('model' in outcome)) throw new Error('the thread made no model');
  const { model, figures } = outcome;
  const notes: string[] = [];
  await step('cutting photos and drawing cards', 0.35);
  const places: FrameTask[] = [];
  for (const row of model.photos) {
    places.push(await fetchPlace(app, work, row, { study, names, files }));
  }
  const [cut] = await Promise.all([
    onThread(app, { do: 'frames', folder, places }),
    onThread(app, { do: 'cards', folder, model: join(work, MODEL) }),
  ]);
  if ('notes' in cut) notes.push(...cut.notes);
  await step('writing the page', 0.7);
  await onThread(app, { do: 'page', folder, model: join(work, MODEL) });
  await copyFile(join(work, 'data.zip'), join(folder, 'data.zip'));
  await step('printing the PDF and packing', 0.8);
  const why = await printed(folder, work);
  if (why !== null) notes.push(why);
  const whole = await seal(folder, work, figures, model);
  await packReport(folder, work);
  await step('storing it', 0.95);
  await moveIn(work, folder);
  const kept = await keepFiles(app, folder);
  await finishRevision(db, studyId, number, {
    askedAt,
    model,
    figures: whole,
    notes,
    studyRevision: revision,
    files: kept,
  });
}

/** Writes what is published of a study, as it stands at one moment, into a zip. */
async function freezeData(app: App, studyId: string, until: string | null, path: string) {
  const { db } = app;
  const loaded = await loadStudy(db, studyId);
  const withNames = loaded.study.meta.report?.with_names === true;
  const whole = until === null ? loaded.study : studyUntil(loaded.study, until);
  const { study, files } = publishable(whole, { withNames });
  const texts = writePackage(study, {});
  const stored = new Map((await listFiles(db, studyId)).map((file) => [file.path, file.sha256]));
  const photos = new Set([
    ...loaded.study.tables.photos.map((row) => row.path),
    ...loaded.study.tables.incident_photos.map((row) => row.path),
  ]);
  const parts = async function* (): AsyncGenerator<Part> {
    for (const [name, text] of texts) {
      yield {
        path: name,
        isPacked: true,
        content: Readable.from([new TextEncoder().encode(text)]),
      };
    }
    for (const [from, to] of [...files.names].sort(([, a], [, b]) => (a < b ? -1 : 1))) {
      const sha256 = stored.get(from);
      // Photos are shown as they were cut: the camera's own files stay at home.
      if (sha256 === undefined || photos.has(from)) continue;
      // What is packed already becomes smaller once more: it was packed in haste.
      yield { path: to, isPacked: true, content: readFile(db, sha256) };
    }
    await Promise.resolve();
  };
  await pipeline(zipParts(parts()), createWriteStream(path));
  return { study, names: files.names, files: stored, revision: loaded.revision };
}

type Frozen = Awaited<ReturnType<typeof freezeData>>;

/** Puts the photos of a place on disk, with the marks by which they are cut. */
async function fetchPlace(
  app: App,
  work: string,
  row: {
    box: FrameTask['box'];
    frames: readonly { specimen_id: string; source: string; file: string }[];
  },
  { study, names, files }: Pick<Frozen, 'study' | 'names' | 'files'>,
): Promise<FrameTask> {
  const original = new Map([...names].map(([from, to]) => [to, from]));
  const frames: FrameTask['frames'][number][] = [];
  for (const { specimen_id, source, file } of row.frames) {
    const sha256 = files.get(original.get(source) ?? source);
    if (sha256 === undefined) continue;
    const copy = join(work, sha256);
    await pipeline(readFile(app.db, sha256), createWriteStream(copy));
    const marks = study.tables.photo_marks.filter(
      (mark) => mark.specimen_id === specimen_id && mark.path === source,
    );
    frames.push({ source: copy, file, marks });
  }
  return { box: row.box, frames };
}

/** Prints the PDF; why there is none, where there is none. */
async function printed(folder: string, work: string): Promise<string | null> {
  const browser = findBrowser();
  if (browser === null) {
    return (
      'No PDF: there is no Chromium on this machine (apt-get install chromium). The page prints ' +
      'well from any browser.'
    );
  }
  try {
    await printPdf(folder, join(work, PDF), browser);
    return null;
  } catch (error) {
    const [reason] = (error instanceof Error ? error.message : 'unknown').split('\n');
    return `No PDF: Chromium did not print it (${reason}). The page prints well from any browser.`;
  }
}

/** All files under a folder, with / between their names. */
async function filesUnder(folder: string): Promise<string[]> {
  const entries = await readdir(folder, { recursive: true, withFileTypes: true });
  return entries
    .filter((entry) => entry.isFile())
    .map((entry) => relative(folder, join(entry.parentPath, entry.name)).replaceAll('\\', '/'))
    .sort();
}

/** Lists all files of a report with their hashes, the PDF too: a change of any of them shows. */
async function seal(
  folder: string,
  work: string,
  figures: RevisionFigures,
  { since }: ReportModel,
): Promise<RevisionFigures> {
  const files: Record<string, string> = {};
  for (const path of await filesUnder(folder)) files[path] = await sha256Of(join(folder, path));
  if (existsSync(join(work, PDF))) files[PDF] = await sha256Of(join(work, PDF));
  const { figures: whole, text } = sealed(figures, since, files);
  await writeFile(join(folder, FIGURES), text);
  return whole;
}

async function sha256Of(path: string): Promise<string> {
  const hash = createHash('sha256');
  for await (const chunk of buffersOf(createReadStream(path))) hash.update(chunk);
  return hash.digest('hex');
}

const MODEL = 'model.json';
const PDF = 'report.pdf';
const ZIP = 'report.zip';

/** Packs everything but the PDF, which is a form of its own, into one zip that opens from disk. */
async function packReport(folder: string, work: string): Promise<void> {
  const paths = await filesUnder(folder);
  const parts = async function* (): AsyncGenerator<Part> {
    for (const path of paths) {
      yield { path, isPacked: isPackable(path), content: createReadStream(join(folder, path)) };
    }
    await Promise.resolve();
  };
  const zip = createWriteStream(join(work, ZIP));
  await pipeline(zipParts(parts()), zip);
}

/** Puts what was printed and packed beside what it was made of. */
async function moveIn(work: string, folder: string): Promise<void> {
  for (const name of [PDF, ZIP]) {
    if (existsSync(join(work, name))) await rename(join(work, name), join(folder, name));
  }
}

async function keepFiles(app: App, folder: string): Promise<ReportFile[]> {
  const kept: ReportFile[] = [];
  for (const path of await filesUnder(folder)) {
    const full = join(folder, path);
    const sha256 = await storeContent(app.db, createReadStream(full));
    kept.push({ path, bytes: (await stat(full)).size, sha256 });
  }
  return kept;
}
