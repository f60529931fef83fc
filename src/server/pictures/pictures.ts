import { createHash } from 'node:crypto';
import type { Readable } from 'node:stream';
import { type Row, asColumns, readRow } from '../../core/model/study';
import {
  findFile,
  findRow,
  freePath,
  insertRow,
  linkFile,
  listRowsBy,
  readFile,
  rowOrNull,
  storeContent,
  writeStudy,
} from '../../data';
import type { App } from '../app';
import { RequestError } from '../http/problem';
import { isHeic, kindOfPath, kindOfPicture } from '../../files/photos/picture-kinds';

/** The largest picture that is taken. */
export const LARGEST_PICTURE = 25 * 1024 * 1024;

/** The tables whose rows are pictures: of what, and where their files lie in the package. */
const PICTURES = {
  incident_photos: { owners: 'incidents', owner: 'incident_id', folder: 'incidents' },
} as const;

export type PictureTable = keyof typeof PICTURES;

/** A picture's row without what is found as it is stored: of what it is, and where it lies. */
type PictureFacts<Table extends PictureTable> = Omit<
  Row<Table>,
  'path' | 'extras' | (typeof PICTURES)[Table]['owner']
>;

/**
 * Stores a picture of something. What it is, its first bytes say, not its name. Its own name is found
 * in the same transaction as its row; the same picture of the same thing is stored once.
 *
 * @returns its path among the study's files
 */
export async function storePicture<Table extends PictureTable>(
  app: App,
  studyId: string,
  table: Table,
  ownerId: string,
  content: Buffer,
  facts: PictureFacts<Table>,
  who: string | null,
): Promise<{ path: string; isKnown: boolean }> {
  const { db } = app;
  const { owners, owner, folder } = PICTURES[table];
  const kind = kindOfPicture(content);
  if (!kind) {
    throw new RequestError(
      415,
      isHeic(content)
        ? 'This is a HEIC picture: set the phone’s camera to the most compatible format, or send it as JPEG.'
        : 'A photo is a JPEG, PNG or WebP picture.',
    );
  }
  await findRow(db, studyId, owners, { [owner]: ownerId });
  const sha256 = createHash('sha256').update(content).digest('hex');
  await storeContent(db, [content]);
  return writeStudy(db, studyId, who, async (write) => {
    await findRow(write.db, studyId, owners, { [owner]: ownerId });
    for (const row of await listRowsBy(write.db, studyId, table, owner as never, ownerId)) {
      const path = String(asColumns(row).path);
      if ((await findFile(write.db, studyId, path))?.sha256 === sha256) {
        return { path, isKnown: true };
      }
    }
    const path = await freePath(write, folder, ownerId, kind.ending);
    await linkFile(write, path, sha256);
    await insertRow(write, table, readRow(table, { ...facts, [owner]: ownerId, path }));
    return { path, isKnown: false };
  });
}

/** A picture's content with its type; null where there is none at that path of that thing. */
export async function openPicture(
  app: App,
  studyId: string,
  table: PictureTable,
  ownerId: string,
  path: string,
): Promise<{ type: string; content: Readable } | null> {
  const { db } = app;
  const { owner } = PICTURES[table];
  const row = await rowOrNull(db, studyId, table, { [owner]: ownerId, path });
  const file = row && (await findFile(db, studyId, path));
  const kind = kindOfPath(path);
  return file && kind ? { type: kind.type, content: readFile(db, file.sha256) } : null;
}
