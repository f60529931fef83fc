import * as z from 'zod';
import type { Row } from '../../core/model/study';
import { asJson, execute, query, type Database } from '../database';
import type { Write } from '../write';
import { logChange } from './changes';

/** A code that stands in a photo: what it says, and where its corners are, pixels as it is seen. */
export interface SeenCode {
  text: string;
  corners: { u: number; v: number }[];
}

/** What is said of a photo whose specimen is not known yet. */
export type ToldOfPhoto = Partial<Pick<Row<'photos'>, 'view' | 'light' | 'session' | 'px_per_mm'>>;

/** The view of a registered photo, laid flat and kept in tiles. */
export interface RectifiedView {
  /** What it was laid by: photos laid by other marks are laid anew. */
  edition: string;
  /** The rectangle of the view that it shows, mm. */
  box: { x: number; y: number; w: number; h: number };
  /** Pixels of its largest level, and of each of its tiles' sides. */
  width: number;
  height: number;
  tile: number;
  levels: number;
}

/** A photo among a study's files, and what was found in it. */
const pictureRow = z.strictObject({
  path: z.string(),
  name: z.string(),
  sha256: z.string(),
  /** What was said of it before it is filed. */
  told: z.custom<ToldOfPhoto>().nullable(),
  state: z.enum(['failed', 'waiting', 'ready']),
  message: z.string().nullable(),
  /** Pixels as it is seen; null until it was looked into. */
  width: z.number().nullable(),
  height: z.number().nullable(),
  taken_at: z.string().nullable(),
  codes: z.custom<SeenCode[] | null>(),
  laid: z.custom<RectifiedView>().nullable(),
});
export type Picture = z.infer<typeof pictureRow>;

/** Something that was made of a photo: a smaller one, or a tile of its view. */
const picturePartRow = z.strictObject({
  kind: z.enum(['level', 'tile']),
  level: z.number(),
  column: z.number(),
  row: z.number(),
  width: z.number(),
  height: z.number(),
  sha256: z.string(),
});
export type PicturePart = z.infer<typeof picturePartRow>;

const COLUMNS = `p."path", p.name, f.sha256, p.told, p.state, p.message, p.width, p.height, p.taken_at,
  p.codes, p.laid`;
const FROM = `from pictures p join study_files f on f.study_id = p.study_id and f."path" = p."path"`;

/** The photos of a study in the order in which they came. */
export const listPictures = (db: Database, studyId: string): Promise<Picture[]> =>
  query(
    db,
    pictureRow,
    `select ${COLUMNS} ${FROM} where p.study_id = $1 order by p.taken_at nulls last, p.arrived`,
    [studyId],
  );

/** A photo among a study's files; null where there is none at that path. */
export async function findPicture(
  db: Database,
  studyId: string,
  path: string,
): Promise<Picture | null> {
  const [found] = await query(
    db,
    pictureRow,
    `select ${COLUMNS} ${FROM} where p.study_id = $1 and p."path" = $2`,
    [studyId, path],
  );
  return found ?? null;
}

const pathOfPictureRow = z.strictObject({ path: z.string() });

/** The path of the photo that has this content; null where the study has none. */
export async function pathOfPicture(
  { db, studyId }: Pick<Write, 'db' | 'studyId'>,
  sha256: string,
): Promise<string | null> {
  const [found] = await query(
    db,
    pathOfPictureRow,
    `select p."path" ${FROM} where p.study_id = $1 and f.sha256 = $2 order by p.arrived limit 1`,
    [studyId, sha256],
  );
  return found?.path ?? null;
}

/** Enters a file of the study as a photo that is to be looked into. */
export const insertPicture = (
  { db, studyId }: Pick<Write, 'db' | 'studyId'>,
  path: string,
  name: string,
): Promise<void> =>
  execute(
    db,
    `insert into pictures (study_id, "path", name) values ($1, $2, $3)
     on conflict (study_id, "path") do nothing`,
    [studyId, path, name],
  );

const unmadePicturesRow = z.strictObject({ study_id: z.string(), path: z.string() });

/** Enters the photos that came with packages, and names all of which nobody has made anything yet. */
export async function unmadePictures(
  db: Database,
  studyId: string | null = null,
): Promise<{ study_id: string; path: string }[]> {
  await execute(
    db,
    `insert into pictures (study_id, "path", name)
     select distinct p.study_id, p."path", p."path" from photos p
     join study_files f on f.study_id = p.study_id and f."path" = p."path"
     where $1::uuid is null or p.study_id = $1::uuid
     on conflict (study_id, "path") do nothing`,
    [studyId],
  );
  return query(
    db,
    unmadePicturesRow,
    `select study_id, "path" from pictures
     where state = 'waiting' and ($1::uuid is null or study_id = $1::uuid) order by arrived`,
    [studyId],
  );
}

/** Keeps what was found in a photo, or why it cannot be read. */
export const setPicture = (
  { db, studyId }: Pick<Write, 'db' | 'studyId'>,
  path: string,
  found: Pick<Picture, 'state' | 'message' | 'width' | 'height' | 'taken_at' | 'codes'>,
): Promise<void> =>
  execute(
    db,
    `update pictures set state = $3, message = $4, width = $5, height = $6, taken_at = $7, codes = $8
     where study_id = $1 and "path" = $2`,
    [
      studyId,
      path,
      found.state,
      found.message,
      found.width,
      found.height,
      found.taken_at,
      found.codes && asJson(found.codes),
    ],
  );

/** Keeps what is said of a photo until it is filed. */
export const setTold = (
  { db, studyId }: Pick<Write, 'db' | 'studyId'>,
  path: string,
  told: ToldOfPhoto,
): Promise<void> =>
  execute(db, 'update pictures set told = $3 where study_id = $1 and "path" = $2', [
    studyId,
    path,
    asJson(told),
  ]);

/** Says by what a photo's view is laid; null: it is not. */
export const setRectification = (
  { db, studyId }: Pick<Write, 'db' | 'studyId'>,
  path: string,
  laid: RectifiedView | null,
): Promise<void> =>
  execute(db, 'update pictures set laid = $3 where study_id = $1 and "path" = $2', [
    studyId,
    path,
    laid && asJson(laid),
  ]);

/** Puts what was made of a photo in place of what was there of that kind. */
export async function replaceParts(
  { db, studyId }: Pick<Write, 'db' | 'studyId'>,
  path: string,
  kind: PicturePart['kind'],
  parts: readonly PicturePart[],
): Promise<void> {
  await execute(db, 'delete from picture_parts where study_id = $1 and "path" = $2 and kind = $3', [
    studyId,
    path,
    kind,
  ]);
  await execute(
    db,
    `insert into picture_parts (study_id, "path", kind, level, "column", "row", width, height, sha256)
     select $1, $2, $3, level, "column", "row", width, height, sha256
     from jsonb_to_recordset($4::jsonb) as p(level integer, "column" integer, "row" integer,
       width integer, height integer, sha256 text)`,
    [studyId, path, kind, JSON.stringify(parts)],
  );
}

/** A part that was made of a photo; null where there is none. */
export async function findPart(
  db: Database,
  studyId: string,
  path: string,
  { kind, level, column, row }: Pick<PicturePart, 'kind' | 'level' | 'column' | 'row'>,
): Promise<PicturePart | null> {
  const [found] = await query(
    db,
    picturePartRow,
    `select kind, level, "column", "row", width, height, sha256 from picture_parts
     where study_id = $1 and "path" = $2 and kind = $3 and level = $4 and "column" = $5 and "row" = $6`,
    [studyId, path, kind, level, column, row],
  );
  return found ?? null;
}

/** Tables whose rows stand under a photo of a specimen. */
const OF_PHOTO = ['photos', 'photo_marks', 'photo_measures'] as const;

const movePhotoRow = z.strictObject({ n: z.number() });

/** Files a photo under another specimen, with all that was marked and measured on it. */
export async function movePhoto(
  write: Write,
  path: string,
  from: string,
  to: string,
): Promise<void> {
  const { db, studyId } = write;
  await execute(db, 'set constraints all deferred');
  for (const table of OF_PHOTO) {
    const moved = await query(
      db,
      movePhotoRow,
      `with moved as (
         update ${table} set specimen_id = $4, row_version = row_version + 1
         where study_id = $1 and "path" = $2 and specimen_id = $3 returning 1
       ) select count(*)::int as n from moved`,
      [studyId, path, from, to],
    );
    if ((moved[0]?.n ?? 0) > 0) write.touch(table);
  }
  await execute(db, 'set constraints all immediate');
  const key = { specimen_id: to, path };
  await logChange(write, { table: 'photos', key, before: { specimen_id: from }, after: key });
}
