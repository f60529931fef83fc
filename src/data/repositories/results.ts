import { execute, select, type Database } from '../database';

/** A result as it was kept: JSON text, and the revision of the study it was made from. */
export interface KeptResult {
  section: string;
  revision: string;
  value: unknown;
}

/** The kept results of some sections, whatever revision they are of. */
export const findResults = (
  db: Database,
  studyId: string,
  parameters: string,
  sections: readonly string[],
): Promise<KeptResult[]> =>
  select<KeptResult>(
    db,
    `select section, revision, value from results
     where study_id = $1 and parameters = $2
       and section in (select jsonb_array_elements_text($3::jsonb))`,
    [studyId, parameters, JSON.stringify(sections)],
  );

/** Keeps results unless newer ones are kept already. */
export async function keepResults(
  db: Database,
  studyId: string,
  parameters: string,
  revision: string,
  sections: Readonly<Record<string, string>>,
): Promise<void> {
  await db.sequelize.transaction(async (transaction) => {
    for (const [section, json] of Object.entries(sections)) {
      await execute(
        db,
        `insert into results (study_id, section, parameters, revision, value)
         values ($1, $2, $3, $4, $5::json)
         on conflict (study_id, section, parameters) do update
           set revision = excluded.revision, value = excluded.value
           where results.revision <= excluded.revision`,
        [studyId, section, parameters, revision, json],
        transaction,
      );
    }
  });
}
