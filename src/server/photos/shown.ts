import type { Readable } from 'node:stream';
import { findPart, findPicture, readFile, type PicturePart } from '../../data';
import type { App } from '../app';

/** A part of a photo as it is shown: always a picture that was made here, never the file itself. */
export async function openPart(
  app: App,
  studyId: string,
  path: string,
  which: Pick<PicturePart, 'kind' | 'level' | 'column' | 'row'>,
): Promise<{ content: Readable; sha256: string } | null> {
  const { db } = app;
  const part = await findPart(db, studyId, path, which);
  return part && { content: readFile(db, part.sha256), sha256: part.sha256 };
}

/** The original bytes of a photo, to be saved; null where there is none at that path. */
export async function openOriginal(
  app: App,
  studyId: string,
  path: string,
): Promise<{ content: Readable; name: string } | null> {
  const { db } = app;
  const picture = await findPicture(db, studyId, path);
  return picture && { content: readFile(db, picture.sha256), name: path.split('/').at(-1) ?? path };
}
