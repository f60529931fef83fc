import * as z from 'zod';
import { query, type Database } from '../database';

/** How much of a study's work is done and needed. */
const progressCountsRow = z.strictObject({
  contenders: z.number(),
  artefacts: z.number(),
  /** Artefacts that are planned, or printed without a plan. */
  artefacts_planned: z.number(),
  /** Dimensions in use and zones, of all artefacts. */
  dimensions: z.number(),
  zones: z.number(),
  prints: z.number(),
  /** As many as are planned; without a plan contenders × the most repeats of each artefact. */
  prints_planned: z.number(),
  cells_measured: z.number(),
  cells_needed: z.number(),
  zones_inspected: z.number(),
  zones_needed: z.number(),
  /** Sentences that are the answer. */
  answers: z.number(),
  /** Reports that are published and not withdrawn. */
  published: z.number(),
});
export type ProgressCounts = z.infer<typeof progressCountsRow>;

/** Counts the work of a study. A dimension that cannot be measured counts as done. */
export async function countProgress(db: Database, studyId: string): Promise<ProgressCounts> {
  const [counts] = await query(
    db,
    progressCountsRow,
    `with own_prints as (select * from prints where study_id = $1),
     parts as (
       select s.specimen_id, p.artefact_id from specimens s
       join own_prints p using (print_id) where s.study_id = $1
     ),
     in_use as (
       select artefact_id, dimension_id from dimensions where study_id = $1
       except select artefact_id, dimension_id from retired_dimensions where study_id = $1
     ),
     parts_of as (select artefact_id, count(*) as parts from parts group by artefact_id),
     contender_count as (select count(*) as n from contenders where study_id = $1)
     select
       (select n from contender_count)::int as contenders,
       (select count(*) from artefacts where study_id = $1)::int as artefacts,
       (select count(*) from (
          select artefact_id from own_prints
          union select artefact_id from planned where study_id = $1
       ) a)::int as artefacts_planned,
       (select count(*) from in_use)::int as dimensions,
       (select count(*) from zones where study_id = $1)::int as zones,
       (select count(*) from own_prints)::int as prints,
       coalesce(
         (select sum(repeats) from planned where study_id = $1),
         (select coalesce(sum(repeats), 0) * (select n from contender_count)
            from (select max(repeat) as repeats from own_prints group by artefact_id) a)
       )::int as prints_planned,
       (select count(*) from (
          select specimen_id, dimension_id from readings
            where study_id = $1 and superseded_at is null
          union select specimen_id, dimension_id from unmeasured where study_id = $1
       ) c
       join specimens s on s.study_id = $1 and s.specimen_id = c.specimen_id
       join prints p on p.study_id = $1 and p.print_id = s.print_id
       join in_use u on u.artefact_id = p.artefact_id
         and u.dimension_id = c.dimension_id)::int as cells_measured,
       (select coalesce(sum(parts * sizes), 0) from parts_of
          join (select artefact_id, count(*) as sizes from in_use group by artefact_id) u
            using (artefact_id))::int as cells_needed,
       (select count(*) from (
          select distinct specimen_id, zone_id from inspections where study_id = $1
       ) z)::int as zones_inspected,
       (select coalesce(sum(parts * places), 0) from parts_of
          join (select artefact_id, count(*) as places from zones
                  where study_id = $1 group by artefact_id) z
            using (artefact_id))::int as zones_needed,
       (select count(*) from verdicts where study_id = $1 and kind = 'answer')::int as answers,
       (select count(*) from report_revisions where study_id = $1
          and published_at is not null and withdrawn_at is null)::int as published`,
    [studyId],
  );
  if (!counts) throw new Error('counting gave no row');
  return counts;
}
