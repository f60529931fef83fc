import * as z from 'zod';
import { query, type Database } from '../database';

const activeStudyRow = z.strictObject({
  study_id: z.string(),
  title: z.string(),
  /** Photos that belong to no specimen yet. */
  photos_left: z.number(),
  published: z.number(),
});
export type ActiveStudy = z.infer<typeof activeStudyRow>;

/** Studies that are neither deleted nor archived, the one changed last first. */
export const activeStudies = (db: Database, most: number): Promise<ActiveStudy[]> =>
  query(
    db,
    activeStudyRow,
    `select study_id, title,
       (select count(*)::int from pictures p where p.study_id = s.study_id and not exists (
          select 1 from photos f where f.study_id = p.study_id and f."path" = p."path")) as photos_left,
       (select count(*)::int from report_revisions r where r.study_id = s.study_id
          and published_at is not null and withdrawn_at is null) as published
     from studies s where deleted_at is null and archived_at is null
     order by updated_at desc, study_id limit $1`,
    [most],
  );
