import * as z from 'zod';
import { nextCodes, type Row } from '../../core/model/study';
import { query, type Database } from '../database';
import { RefusedError } from '../errors';
import type { Write } from '../write';

const stickerCodesRow = z.strictObject({ code: z.string() });

/** The sticker codes of a study that were given last, the latest first: what the next ones follow from. */
export async function stickerCodes(db: Database, studyId: string): Promise<string[]> {
  const rows = await query(
    db,
    stickerCodesRow,
    `select code from (
       (select code, 0 as kind, ordinal from specimens
        where study_id = $1 and code is not null order by ordinal desc limit 2000)
       union all
       -- What was deleted may be restored, and its sticker is still on the part.
       select row->>'code', 1, (row->>'ordinal')::bigint
       from deletions, jsonb_array_elements(held->'tables') as t, jsonb_array_elements(t->'rows') as row
       where study_id = $1 and restored_at is null and t->>'table' = 'specimens'
         and row->>'code' is not null
     ) c order by kind, ordinal desc`,
    [studyId],
  );
  return rows.map((row) => row.code);
}

/** Which of some codes are on a specimen already, or name one; in small letters. */
async function takenOf(write: Write, codes: readonly string[]): Promise<string[]> {
  const rows = await query(
    write.db,
    stickerCodesRow,
    `select lower(code) as code from specimens
     where study_id = $1 and lower(code) = any($2::text[])
     union select lower(specimen_id) from specimens
     where study_id = $1 and lower(specimen_id) = any($2::text[])`,
    [write.studyId, codes.map((code) => code.toLowerCase())],
  );
  return rows.map((row) => row.code);
}

/** Draws codes that no specimen of the study has: within the write that uses them they stay free. */
async function drawCodes(write: Write, count: number): Promise<string[]> {
  if (count === 0) return [];
  const known = await stickerCodes(write.db, write.studyId);
  for (;;) {
    const codes = nextCodes(known, count);
    const taken = await takenOf(write, codes);
    if (taken.length === 0) return codes;
    known.push(...taken);
  }
}

const holderOfRow = z.strictObject({
  artefact: z.string(),
  contender: z.string(),
  repeat: z.number(),
  copy: z.number().nullable(),
});

/** Where the specimen is that has a code, in words; null where the code is free. */
async function holderOf(write: Write, code: string, specimenId: string): Promise<string | null> {
  const [held] = await query(
    write.db,
    holderOfRow,
    `select a.name as artefact, c.label as contender, p.repeat, s.copy
     from specimens s
     join prints p on p.study_id = s.study_id and p.print_id = s.print_id
     join artefacts a on a.study_id = s.study_id and a.artefact_id = p.artefact_id
     join contenders c on c.study_id = s.study_id and c.contender_id = p.contender_id
     where s.study_id = $1 and lower(s.code) = lower($2) and s.specimen_id <> $3`,
    [write.studyId, code, specimenId],
  );
  if (!held) return null;
  const copy = held.copy === null ? '' : `, copy ${held.copy}`;
  return `${held.artefact}, ${held.contender}, repeat ${held.repeat}${copy}`;
}

/** Refuses a code that another specimen has, with one that is free. @throws RefusedError */
export async function checkCode(write: Write, specimenId: string, code: string): Promise<void> {
  const holder = await holderOf(write, code, specimenId);
  if (holder === null) return;
  const [proposal = ''] = await drawCodes(write, 1);
  throw new RefusedError(
    `The sticker ${code} is on another part (${holder}). Use ${proposal}, which is free.`,
    { proposal, issues: [{ path: 'code', message: `is on another part; ${proposal} is free` }] },
  );
}

const withStickersRow = z.strictObject({ specimen_id: z.string(), code: z.string().nullable() });

/** Specimens that are new, each with a code of its own: one that names none gets the next that is free. */
export async function withStickers(
  write: Write,
  specimens: readonly Row<'specimens'>[],
): Promise<Row<'specimens'>[]> {
  const known = await query(
    write.db,
    withStickersRow,
    'select specimen_id, code from specimens where study_id = $1 and specimen_id = any($2::text[])',
    [write.studyId, specimens.map((row) => row.specimen_id)],
  );
  // What is sent again has the code that it was given the first time.
  const given = new Map(known.map((row) => [row.specimen_id, row.code]));
  const isNew = (row: Row<'specimens'>) => row.code === null && !given.has(row.specimen_id);
  const codes = await drawCodes(write, specimens.filter(isNew).length);
  return specimens.map((row) =>
    row.code === null ? { ...row, code: given.get(row.specimen_id) ?? codes.shift() ?? null } : row,
  );
}
