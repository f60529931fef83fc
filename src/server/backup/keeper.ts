import { access, constants, mkdir, readdir, rm, stat, statfs } from 'node:fs/promises';
import { basename, join } from 'node:path';
import { dueEvery, hasRoom, leftOver, type KeptFile } from '../../core/model/backup';
import {
  databaseBytes,
  isReadBackDue,
  lastBackups,
  lastReadBack,
  noteBackup,
  noteReadBack,
  oneAtATime,
  type MadeBackup,
} from '../../data';
import type { App } from '../app';
import { makeBackup, rowsOf } from './dump';
import { BackupError } from './fault';
import { readBack } from './read-back';
import { beside } from './manifest';

/** After one that failed it is not tried again at once. */
const AFTER_FAULT_MS = 15 * 60_000;
const NAME = /^vergleich-(\d{4}-\d{2}-\d{2})T(\d{2})(\d{2})(\d{2})Z\.backup$/;

/** Where backups go and how often, as the environment says. */
export interface BackupPlan {
  folder: string;
  everyMs: number;
}

/** @returns null where no backups are made by themselves. @throws Error in words where it makes no sense */
export function backupPlan(env: NodeJS.ProcessEnv = process.env): BackupPlan | null {
  if (env.BACKUP_EVERY?.trim() === 'off') return null;
  // The own cluster's backups lie beside its data, unless another place is named.
  const folder = env.BACKUP_DIR || (env.KEEP_DIR ? join(env.KEEP_DIR, 'backups') : '');
  if (folder === '') return null;
  const everyMs = dueEvery(env.BACKUP_EVERY ?? '24h');
  if (everyMs === null)
    throw new Error(
      `BACKUP_EVERY is ${env.BACKUP_EVERY}: it must be from 10m to 31d, like 24h, or off.`,
    );
  return { folder, everyMs };
}

/** The name of a backup that is made at a moment. */
const backupName = (at: Date): string =>
  `vergleich-${at.toISOString().slice(0, 19).replaceAll(':', '')}Z.backup`;

/** Backups of ours in a folder; other files in it are nobody's business. */
async function backupsIn(folder: string): Promise<KeptFile[]> {
  return (await readdir(folder)).flatMap((name) => {
    const [, day, hour, minute, second] = NAME.exec(name) ?? [];
    return day ? [{ name, at: Date.parse(`${day}T${hour}:${minute}:${second}Z`) }] : [];
  });
}

/** Takes away what need not be kept; what half a backup left too. */
async function tidy(folder: string): Promise<void> {
  for (const { name } of leftOver(await backupsIn(folder))) {
    await rm(join(folder, name), { force: true });
    await rm(join(folder, beside(name)), { force: true });
  }
}

/**
 * Makes a backup where one is due; of several processes one does it. What became of it is noted, also that it
 * failed.
 *
 * @returns what was noted; null where none was due
 */
export async function backUpIfDue(
  { db, log }: App,
  { folder, everyMs }: BackupPlan,
  databaseUrl: string,
): Promise<Omit<MadeBackup, 'at'> | null> {
  return oneAtATime(db, 'backup', async () => {
    const { good, last } = await lastBackups(db);
    const age = (made: MadeBackup | null) =>
      made ? Date.now() - Date.parse(made.at) : Number.POSITIVE_INFINITY;
    const isThere = good !== null && (await stat(good.file).catch(() => null)) !== null;
    // One that somebody took away is none.
    if (isThere && age(good) < everyMs) return null;
    if (last?.fault != null && age(last) < AFTER_FAULT_MS) return null;
    const file = join(folder, backupName(new Date()));
    let made: Omit<MadeBackup, 'at'>;
    try {
      await mkdir(folder, { recursive: true, mode: 0o700 });
      await access(folder, constants.W_OK);
      await checkRoom(db, folder);
      const manifest = await makeBackup(db, databaseUrl, file);
      made = { file, bytes: manifest.dump.bytes, rows: rowsOf(manifest), fault: null };
    } catch (error) {
      log.error(error, 'no backup');
      const fault = error instanceof Error ? error.message : String(error);
      made = { file, bytes: null, rows: null, fault: fault.slice(0, 2000) };
    }
    await noteBackup(db, made);
    if (made.fault === null) {
      await tidy(folder).catch((error: unknown) => log.warn(error, `tidying ${folder}`));
    }
    return made;
  });
}

const megabytes = (bytes: number): string => `${Math.round(bytes / 1e6)} MB`;

/** A backup is made only where twice the database has room. @throws BackupError */
async function checkRoom(db: App['db'], folder: string): Promise<void> {
  const { bavail, bsize } = await statfs(folder);
  const [free, size] = [bavail * bsize, await databaseBytes(db)];
  if (hasRoom(free, size)) return;
  throw new BackupError(
    `No backup was made: ${folder} has ${megabytes(free)} free, and the database takes ` +
      `${megabytes(size)}. Free twice that, or set BACKUP_DIR to a folder on another disk.`,
  );
}

/** So often the last backup is read back and compared. */
const READ_BACK_MS = 7 * 86_400_000;

/**
 * Reads the last good backup back into a database of its own and compares it, once a week; what came of it is noted.
 *
 * @returns what was noted; null where it was not due
 */
export async function readBackIfDue(
  { db, log }: App,
  databaseUrl: string,
): Promise<{ fault: string | null } | null> {
  return oneAtATime(db, 'backup', async () => {
    const { good } = await lastBackups(db);
    if (!good || !(await isReadBackDue(db, READ_BACK_MS))) return null;
    let fault: string | null = null;
    try {
      await readBack(db, databaseUrl, good.file);
    } catch (error) {
      log.error(error, 'a backup could not be read back');
      fault = (error instanceof Error ? error.message : String(error)).slice(0, 2000);
    }
    await noteReadBack(db, good.file, fault);
    return { fault };
  });
}

/** How backups stand, for the owner. */
export interface BackupStanding {
  /** Whether any are made by themselves. */
  isPlanned: boolean;
  /** The last good one: when, its file's name, bytes. */
  good: { at: string; name: string; bytes: number; rows: number } | null;
  /** Why the last one failed, where it came after the last good one. */
  fault: string | null;
  /** When one was last read back and compared, and what was wrong then. */
  readBack: { at: string; fault: string | null } | null;
  /** Whether the last good one is older than two turns. */
  isLate: boolean;
}

export async function backupStanding(app: App, now = Date.now()): Promise<BackupStanding> {
  const plan = backupPlan();
  const { good, last } = await lastBackups(app.db);
  return {
    isPlanned: plan !== null,
    good: good && {
      at: good.at,
      name: basename(good.file),
      bytes: good.bytes ?? 0,
      rows: good.rows ?? 0,
    },
    fault: last?.fault ?? null,
    readBack: await lastReadBack(app.db),
    isLate: plan !== null && (good === null || now - Date.parse(good.at) > 2 * plan.everyMs),
  };
}
