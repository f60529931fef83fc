import * as z from 'zod';
import { execute, query, type Database } from '../database';
import { transact } from '../write';

/** A part of the results as it is kept, and the revision of the study it was made from. */
const keptResultRow = z.strictObject({
  part: z.string(),
  parameters: z.string(),
  revision: z.number(),
  value: z.unknown(),
});
export type KeptResult = z.infer<typeof keptResultRow>;

/** A part of the results that is looked for. */
export interface WantedResult extends Pick<KeptResult, 'part' | 'parameters'> {
  /** An older one is told of without its value, which may be large; null for whatever is there. */
  least: number | null;
}

/** The kept results of some parts, whatever revision they are of. */
export const findResults = (
  db: Database,
  studyId: string,
  wanted: readonly WantedResult[],
): Promise<KeptResult[]> =>
  query(
    db,
    keptResultRow,
    `select r.section as part, r.parameters, r.revision::float8 as revision,
       case when r.revision >= coalesce(w.least, 0) then r.value end as value from results r
     join jsonb_to_recordset($2::jsonb) as w(part text, parameters text, least float8)
       on r.section = w.part and r.parameters = w.parameters
     where r.study_id = $1`,
    [studyId, JSON.stringify(wanted)],
  );

/** Stores results unless newer ones are kept already; `value` is JSON text here. */
export const storeResults = (
  db: Database,
  studyId: string,
  results: readonly (Omit<KeptResult, 'value'> & { value: string })[],
): Promise<void> =>
  transact(db, async (bound) => {
    // In one order everywhere, so that two who store the same do not wait for each other.
    const ordered = [...results].sort((a, b) =>
      `${a.part} ${a.parameters}` < `${b.part} ${b.parameters}` ? -1 : 1,
    );
    for (const { part, parameters, revision, value } of ordered) {
      await execute(
        bound,
        `insert into results (study_id, section, parameters, revision, value)
         select study_id, $2, $3, $4, $5::json from studies where study_id = $1
         on conflict (study_id, section, parameters) do update
           set revision = excluded.revision, value = excluded.value
           where results.revision <= excluded.revision`,
        [studyId, part, parameters, revision, value],
      );
    }
  });

/** Drops results that other editions of the calculations have made, and those of deleted studies. */
export const dropOtherEditions = (db: Database, edition: string): Promise<void> =>
  execute(
    db,
    `delete from results r using studies s where s.study_id = r.study_id
       and (s.deleted_at is not null or (r.parameters::jsonb)->>'edition' is distinct from $1)`,
    [edition],
  );
