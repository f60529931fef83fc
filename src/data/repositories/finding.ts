import * as z from 'zod';
import { ITEM_KINDS } from '../../core/answers/workshop';
import { query, type Database } from '../database';

/** Something that carries what was typed, in its name or code. */
const foundRow = z.strictObject({
  kind: z.enum([...ITEM_KINDS, 'study', 'print', 'specimen', 'sliced-file']),
  /** Its id: of a study or thing its own, else within its study. */
  id: z.string(),
  name: z.string(),
  /** What tells it from others of that name. */
  about: z.string().nullable(),
  study_id: z.string().nullable(),
});
export type FoundRow = z.infer<typeof foundRow>;

/** How many of a kind are found at most. */
const MOST = 6;

/**
 * What carries a text in its name or code, the nearest first: what begins with it before what holds it,
 * the study at hand before others.
 *
 * @param studyId the study at hand; null outside studies
 */
export const findAnything = (
  db: Database,
  text: string,
  studyId: string | null,
): Promise<FoundRow[]> =>
  query(
    db,
    foundRow,
    `with asked as (
       select '%' || replace(replace(replace($1, '\\', '\\\\'), '%', '\\%'), '_', '\\_') || '%' as like,
         lower($1) as text
     ), candidates as (
       select 'study' as kind, s.study_id::text as id, s.title as name, null as about, s.study_id, 1 as turn
         from studies s, asked where s.deleted_at is null and (s.title ilike asked.like or s.name ilike asked.like)
       union all
       select t.kind, t.uid::text, t.name, nullif(concat_ws(', ', t.facts->>'maker', t.facts->>'serial'), ''), null, 2
         from things t, asked
         where t.merged_into is null and t.deleted_at is null
           and (t.name ilike asked.like or t.facts->>'serial' ilike asked.like)
       union all
       select 'specimen', p.specimen_id, coalesce(p.code, p.specimen_id), a.name, p.study_id, 3
         from specimens p join prints r using (study_id, print_id) join artefacts a using (study_id, artefact_id), asked
         where p.code ilike asked.like or p.specimen_id ilike asked.like
       union all
       select 'print', r.print_id, r.print_id, c.label || ', ' || a.name, r.study_id, 4
         from prints r join contenders c using (study_id, contender_id)
           join artefacts a using (study_id, artefact_id), asked
         where r.print_id ilike asked.like
       union all
       select 'sliced-file', f.path, f.path, null, f.study_id, 5
         from sliced_files f, asked where f.path ilike asked.like
     ), ranked as (
       select c.*, row_number() over (
           partition by c.kind
           order by (c.study_id is not distinct from $2::uuid) desc,
             starts_with(lower(c.name), asked.text) desc, length(c.name), c.name
         ) as place
       from candidates c, asked
       where c.study_id is null or exists (
         select from studies s where s.study_id = c.study_id and s.deleted_at is null)
     )
     select kind, id, name, about, study_id from ranked where place <= ${MOST} order by turn, place`,
    [text, studyId],
  );
