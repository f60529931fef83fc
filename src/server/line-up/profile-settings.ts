import { v7 as uuid } from 'uuid';
import { isKnownSetting } from '../../core/model/study';
import {
  findRow,
  findSlicedFile,
  insertRow,
  listRowsBy,
  updateRow,
  writeStudy,
  type Write,
} from '../../data';
import type { App } from '../app';
import { RequestError } from '../http/problem';
import { insertChecked } from '../rows';

/** A profile to be made from a file. */
export interface NewProfile {
  name: string;
  kind: 'stock' | 'tuned';
  parent_id: string | null;
}

export interface Filled {
  profile_id: string;
  added: number;
  changed: number;
}

/** Which profile a file's settings go to: one that is there, a new one, or that of its contender. */
export type FillTarget = { profile_id: string } | { new: NewProfile } | null;

/**
 * Fills a profile's settings in from what a sliced file states. Settings under names that are not
 * ours stay with the file. One action, one transaction.
 */
export const fillProfile = (
  app: App,
  studyId: string,
  path: string,
  target: FillTarget,
  who: string | null,
): Promise<Filled> =>
  writeStudy(app.db, studyId, who, async (write) => {
    const { db } = write;
    const { facts, contender_id } = await findSlicedFile(db, studyId, path);
    if (!facts) throw new RequestError(422, 'The file has not been read yet.');
    const stated = Object.entries(facts.settings).filter(([key]) => isKnownSetting(key));
    if (stated.length === 0) throw new RequestError(422, 'The file states no settings.');
    const profile_id = await profileOf(write, target, contender_id);
    const rows = await listRowsBy(db, studyId, 'profile_settings', 'profile_id', profile_id);
    const known = new Map(rows.map((row) => [row.key, row]));
    const filled = { profile_id, added: 0, changed: 0 };
    for (const [key, setting] of stated) {
      const value = String(setting);
      const before = known.get(key);
      if (!before) {
        await insertRow(write, 'profile_settings', { profile_id, key, value });
        filled.added += 1;
      } else if (before.value !== value) {
        const { row_version } = before;
        await updateRow(write, 'profile_settings', { profile_id, key }, { value }, row_version);
        filled.changed += 1;
      }
    }
    return filled;
  });

async function profileOf(
  write: Write,
  target: FillTarget,
  contender: string | null,
): Promise<string> {
  const { db, studyId } = write;
  if (target && 'new' in target) {
    const profile_id = uuid();
    await insertChecked(write, 'profiles', { profile_id, ...target.new });
    return profile_id;
  }
  if (target) return (await findRow(db, studyId, 'profiles', target)).profile_id;
  if (contender === null) throw new RequestError(422, 'Choose what the file is for first.');
  return (await findRow(db, studyId, 'contenders', { contender_id: contender })).profile_id;
}
