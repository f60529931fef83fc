import { v7 as uuid } from 'uuid';
import { isKnownSetting } from '../core/study';
import { findRow, findSlicedFile, insertRow, listRows, updateRow } from '../data';
import { app } from './app';
import { RequestError } from './http/problem';
import { addRow } from './rows';

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

/**
 * Fills a profile's settings in from what a sliced file states. Settings under names that are not
 * ours stay with the file.
 *
 * @param target the profile of the file's contender where it is not given
 */
export async function fillProfile(
  studyId: string,
  path: string,
  target: { profile_id: string } | { new: NewProfile } | null,
  who: string | null,
): Promise<Filled> {
  const { db } = app();
  const { facts, contender_id } = await findSlicedFile(db, studyId, path);
  if (!facts) throw new RequestError(422, 'The file has not been read yet.');
  const stated = Object.entries(facts.settings).filter(([key]) => isKnownSetting(key));
  if (stated.length === 0) throw new RequestError(422, 'The file states no settings.');
  const profile_id = await profileOf(studyId, target, contender_id, who);
  const known = new Map(
    (await listRows(db, studyId, 'profile_settings'))
      .filter((row) => row.profile_id === profile_id)
      .map((row) => [String(row.key), row]),
  );
  let added = 0;
  let changed = 0;
  for (const [key, setting] of stated) {
    const value = String(setting);
    const before = known.get(key);
    if (!before) {
      await insertRow(db, studyId, 'profile_settings', { profile_id, key, value }, who);
      added += 1;
    } else if (before.value !== value) {
      const version = before.row_version;
      await updateRow(
        db,
        studyId,
        'profile_settings',
        { profile_id, key },
        { value },
        version,
        who,
      );
      changed += 1;
    }
  }
  return { profile_id, added, changed };
}

async function profileOf(
  studyId: string,
  target: { profile_id: string } | { new: NewProfile } | null,
  contender: string | null,
  who: string | null,
): Promise<string> {
  const { db } = app();
  if (target && 'new' in target) {
    const profile_id = uuid();
    await addRow(studyId, 'profiles', { profile_id, ...target.new }, who);
    return profile_id;
  }
  if (target) {
    await findRow(db, studyId, 'profiles', target);
    return target.profile_id;
  }
  if (contender === null) throw new RequestError(422, 'Say first what the file is for.');
  const row = await findRow(db, studyId, 'contenders', { contender_id: contender });
  return String(row.profile_id);
}
