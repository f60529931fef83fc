import { buffersOf } from '../../files/buffers';
import type { Readable } from 'node:stream';
import { buffer } from 'node:stream/consumers';
import { v7 as uuid } from 'uuid';
import type { Fault, FaultReport, ReadPackage } from '../../core/model/package';
import type { RenamedCode, Settings } from '../../core/model/study';
import {
  findImport,
  insertImport,
  insertSlicedFile,
  lockImport,
  studiesNamed,
  storeContent,
  storeSmallContents,
  storeStudy,
  transact,
  type Database,
} from '../../data';
import {
  openPackage,
  PackageError,
  type PackageFiles,
  type PackageOutcome,
  type PackageTask,
} from '../../files/packages';

export type ImportOutcome = FaultReport & {
  /** Null where there is any fault. */
  studyId: string | null;
  /** Studies that came from a package of the same name before. */
  alike?: { study_id: string; title: string }[];
  /** Whether this import was made before, and not again. */
  isRepeated?: boolean;
};

export interface ImportOptions {
  /** A key by which the same import, sent again, is known: it makes no second study. */
  key?: string;
  /** Ends the work when nobody waits for it any more. */
  signal?: AbortSignal;
}

/** Reads and checks a package: on a thread in the server, at once in the command line. */
export type ReadTask = (
  task: PackageTask,
  signal: AbortSignal | undefined,
) => Promise<PackageOutcome>;

const NOTHING_WRONG: FaultReport = {
  faults: [],
  faultCount: 0,
  warnings: [],
  warningKinds: [],
};

/**
 * Puts a study package, a folder or a zip, into the database: where there is any fault, nothing is
 * kept. Its files are stored first, the study itself in one transaction.
 *
 * @throws PackageError where there is no package that can be opened
 */
export async function importStudy(
  db: Database,
  path: string,
  read: ReadTask,
  { key, signal }: ImportOptions = {},
): Promise<ImportOutcome> {
  const before = key === undefined ? null : await findImport(db, key);
  if (before !== null) return { ...NOTHING_WRONG, studyId: before, isRepeated: true };
  const outcome = await read({ path }, signal);
  if (outcome.isRefused) throw new PackageError(outcome.message);
  const { content, ...report } = outcome.result;
  if (!content) return { ...report, studyId: null };
  const files = await openPackage(path);
  try {
    const hashes = await storeFiles(db, files, content.extraFiles, signal);
    signal?.throwIfAborted();
    const studyId = uuid();
    return await transact(db, async (bound) => {
      if (key !== undefined) await lockImport(bound, key);
      const made = key === undefined ? null : await findImport(bound, key);
      if (made !== null) return { ...report, studyId: made, isRepeated: true };
      const renamed = await storeStudy(bound, studyId, {
        study: content.study,
        packageExtras: content.descriptorExtras,
        files: hashes,
        history: content.history,
      });
      await enterSlicedFiles(bound, studyId, content, outcome.stated);
      if (key !== undefined) await insertImport(bound, key, studyId);
      const more = renamed.map(describeRenamed);
      const warnings = [...report.warnings, ...more];
      const warningKinds = [
        ...report.warningKinds,
        ...more.map((first) => ({ count: 1, first, ofSeveral: '', subject: '' })),
      ];
      const alike = await studiesNamed(bound, content.study.meta.name, studyId);
      return { ...report, warnings, warningKinds, studyId, alike };
    });
  } finally {
    await files.close();
  }
}

/** Says that two parts had one sticker, and which code the later one has now. */
const describeRenamed = ({ specimen_id, before, after }: RenamedCode): Fault => ({
  file: 'specimens.csv',
  line: 1,
  column: 'code',
  message: `the sticker ${before} is on two parts: ${specimen_id} has ${after} from now on`,
});

/** Files up to this size are stored together, many in one transaction. */
const SMALL_BYTES = 256 * 1024;
const SMALL_TOGETHER = 8 * 1024 * 1024;
const MOST_TOGETHER = 500;

/** Stores what the files of a package hold; returns their hashes by path. */
async function storeFiles(
  db: Database,
  files: PackageFiles,
  paths: readonly string[],
  signal: AbortSignal | undefined,
): Promise<Map<string, string>> {
  const hashes = new Map<string, string>();
  let held: { path: string; content: Buffer }[] = [];
  let bytes = 0;
  const flush = async () => {
    const stored = await storeSmallContents(
      db,
      held.map(({ content }) => content),
    );
    held.forEach(({ path }, at) => hashes.set(path, stored[at] ?? ''));
    held = [];
    bytes = 0;
  };
  for (const path of paths) {
    signal?.throwIfAborted();
    const content = unpacked(path, await files.stream(path));
    if (files.sizeOf(path) > SMALL_BYTES) {
      hashes.set(path, await storeContent(db, content));
      continue;
    }
    held.push({ path, content: await buffer(content) });
    bytes += files.sizeOf(path);
    if (bytes >= SMALL_TOGETHER || held.length >= MOST_TOGETHER) await flush();
  }
  if (held.length > 0) await flush();
  return hashes;
}

/** A file's content; where it is damaged, that is said with its name. */
async function* unpacked(path: string, content: Readable): AsyncGenerator<Buffer> {
  try {
    for await (const chunk of buffersOf(content)) yield chunk;
  } catch (error) {
    const reason = error instanceof Error ? error.message : 'unknown';
    throw new PackageError(`${path} cannot be unpacked: ${reason}`);
  }
}

async function enterSlicedFiles(
  db: Database,
  studyId: string,
  { study }: ReadPackage,
  stated: ReadonlyMap<string, Settings>,
): Promise<void> {
  const entered = new Set<string>();
  for (const row of [...study.tables.planned, ...study.tables.prints]) {
    if (row.toolpath === null || entered.has(row.toolpath)) continue;
    entered.add(row.toolpath);
    const { contender_id, artefact_id } = row;
    const settings = stated.get(row.toolpath) ?? null;
    const purpose = { contender_id, artefact_id, is_confirmed: true, settings };
    await insertSlicedFile({ db, studyId, who: null }, row.toolpath, purpose);
  }
}
