import { inChange, findRow, insertRow, listRows, listFiles, readFile, storeFile } from '../data';
import type { Readable } from 'node:stream';
import { app } from './app';
import { RequestError } from './http/problem';

/** The largest photo that is taken. */
export const LARGEST_PHOTO = 25 * 1024 * 1024;

const KINDS = [
  { type: 'image/jpeg', ending: 'jpg', head: [0xff, 0xd8, 0xff] },
  { type: 'image/png', ending: 'png', head: [0x89, 0x50, 0x4e, 0x47] },
  { type: 'image/webp', ending: 'webp', head: [0x52, 0x49, 0x46, 0x46] },
] as const;

/** Keeps a photo of an incident. What it is, its first bytes say, not its name. */
export async function keepIncidentPhoto(
  studyId: string,
  incidentId: string,
  content: Buffer,
  takenAt: string | null,
  who: string | null,
): Promise<{ path: string }> {
  const { db } = app();
  await findRow(db, studyId, 'incidents', { incident_id: incidentId });
  const kind = KINDS.find(({ head }) => head.every((byte, at) => content[at] === byte));
  if (!kind) throw new RequestError(415, 'A photo is a JPEG, PNG or WebP picture.');
  const taken = await listRows(db, studyId, 'incident_photos');
  const number = taken.filter((row) => row.incident_id === incidentId).length + 1;
  const path = `incidents/${incidentId}-${number}.${kind.ending}`;
  await inChange(db, async (transaction) => {
    await storeFile(db, studyId, path, [content], transaction);
    const row = { incident_id: incidentId, path, taken_at: takenAt };
    await insertRow(db, studyId, 'incident_photos', row, who, transaction);
  });
  return { path };
}

/** A photo of an incident, with its type; null where there is none of that path. */
export async function incidentPhoto(
  studyId: string,
  incidentId: string,
  path: string,
): Promise<{ type: string; content: Readable } | null> {
  const { db } = app();
  const rows = await listRows(db, studyId, 'incident_photos');
  if (!rows.some((row) => row.incident_id === incidentId && row.path === path)) return null;
  const file = (await listFiles(db, studyId)).find((one) => one.path === path);
  const kind = KINDS.find(({ ending }) => path.endsWith(`.${ending}`));
  return file && kind ? { type: kind.type, content: readFile(db, file.sha256) } : null;
}
