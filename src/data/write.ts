import { codeOf } from '../core/model/faults';
import { BaseError, type Transaction } from 'sequelize';
import type { StudyPart } from '../core/answers/results';
import { presentActor, presentTab } from './actor';
import { execute, query, someRow, type Database } from './database';
import { NotFoundError, causeOf } from './errors';
import { noteOnce } from './once';

/**
 * A change of a study while it is made. One action is one write: one transaction, one revision, and
 * whatever it asks of `db` is asked within it.
 */
export interface Write {
  readonly db: Database;
  readonly studyId: string;
  /** Who makes the change, as the bench knows them. */
  readonly who: string | null;
  /** Says that a table is another now: the study's revision is raised at the end, and the table's. */
  touch(part: StudyPart): void;
}

/** Errors after which the same transaction may well succeed: serialisation failure, deadlock. */
const PASSING = new Set(['40001', '40P01']);
const MOST_TRIES = 6;

const isPassing = (error: unknown): boolean =>
  error instanceof BaseError && PASSING.has(codeOf(causeOf(error)) ?? '');

/**
 * Runs some work in a transaction. What fails for the moment only (a deadlock, a failure to
 * serialise) is tried again, so the work must be able to be done anew.
 */
export async function transact<Result>(
  db: Database,
  work: (db: Database) => Promise<Result>,
): Promise<Result> {
  if (db.transaction) return work(db);
  for (let attempt = 1; ; attempt += 1) {
    try {
      let committed = () => {};
      const result = await db.sequelize.transaction(async (transaction: Transaction) => {
        const bound = { ...db, transaction };
        // What does not fit fails where it is done and not at the commit.
        await execute(bound, 'set constraints all immediate');
        const [actor, tab] = [presentActor(), presentTab()];
        // What is entered and changed takes it from here: `entered_by`, `changes.actor`, who is told of it.
        if (actor !== null || tab !== null) {
          const sql = `select set_config('vergleich.actor', $1, true), set_config('vergleich.tab', $2, true)`;
          await execute(bound, sql, [actor ?? '', tab ?? '']);
        }
        committed = await noteOnce(bound);
        return await work(bound);
      });
      committed();
      return result;
    } catch (error) {
      if (attempt >= MOST_TRIES || !isPassing(error)) throw error;
      const pause = 10 * 2 ** attempt * (0.5 + Math.random());
      await new Promise((resolve) => setTimeout(resolve, pause));
    }
  }
}

const UUID = /^[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}$/i;

/** Whether a text can be the id of a study, or of a reading. */
export const isUuid = (text: string): boolean => UUID.test(text);

/**
 * Changes a study. Its record is locked before anything else, so that writes to one study follow one
 * another: no two of them wait for each other, and a name or number that is found within the write is
 * still free when it is used.
 *
 * @throws NotFoundError where there is no such study
 */
export function writeStudy<Result>(
  db: Database,
  studyId: string,
  who: string | null,
  work: (write: Write) => Promise<Result>,
): Promise<Result> {
  return transact(db, async (bound) => {
    const found = isUuid(studyId)
      ? await query(
          bound,
          someRow,
          'select 1 from studies where study_id = $1 and deleted_at is null for no key update',
          [studyId],
        )
      : [];
    if (found.length === 0) throw new NotFoundError(`There is no study ${studyId.slice(0, 80)}.`);
    const touched = new Set<StudyPart>();
    const result = await work({
      db: bound,
      studyId,
      who,
      touch: (part) => touched.add(part),
    });
    if (touched.size > 0) {
      await execute(
        bound,
        `update studies set revision = revision + 1, updated_at = now(),
           touched = touched || (
             select jsonb_object_agg(part, revision + 1)
             from jsonb_array_elements_text($2::jsonb) as part
           ),
           touched_by = touched_by || (
             select jsonb_object_agg(part, coalesce(current_setting('vergleich.tab', true), ''))
             from jsonb_array_elements_text($2::jsonb) as part
           )
         where study_id = $1`,
        [studyId, JSON.stringify([...touched])],
      );
    }
    return result;
  });
}
