import * as z from 'zod';
import { execute, query, type Database } from '../database';
import { isPresent } from '../presence';
import { transact } from '../write';

/** Says that a process works on a job. */
export const beginJob = (
  db: Database,
  jobId: string,
  queue: string,
  process: number,
): Promise<void> =>
  execute(
    db,
    `insert into jobs_at_work (job_id, queue, process) values ($1, $2, $3)
     on conflict (job_id) do update set process = excluded.process, since = now()`,
    [jobId, queue, process],
  );

/** So long a process that has taken a job may need until it says so, s. */
const SAID_WITHIN_S = 10;

const listOrphansRow = z.strictObject({ job_id: z.string(), queue: z.string() });

/**
 * The jobs that are being done by nobody: their process is not there any more, or was gone before it could say
 * that it has them. What is said of jobs that are done is forgotten.
 */
export const listOrphans = (db: Database): Promise<{ job_id: string; queue: string }[]> =>
  transact(db, async (bound) => {
    await execute(
      bound,
      `delete from jobs_at_work w where not exists (
         select 1 from jobs.job j where j.id = w.job_id and j.name = w.queue and j.state = 'active'
       )`,
    );
    return query(
      bound,
      listOrphansRow,
      `select j.id as job_id, j.name as queue
       from jobs.job j left join jobs_at_work w on w.job_id = j.id
       where j.state = 'active' and case when w.job_id is null
         then j.started_on < now() - make_interval(secs => $1)
         else not ${isPresent('w.process')} end`,
      [SAID_WITHIN_S],
    );
  });

/** The jobs that a process has begun and nobody has ended. */
export const jobsBegunBy = (
  db: Database,
  process: number,
): Promise<{ job_id: string; queue: string }[]> =>
  query(
    db,
    listOrphansRow,
    `select j.id as job_id, j.name as queue from jobs.job j join jobs_at_work w on w.job_id = j.id
     where j.state = 'active' and w.process = $1`,
    [process],
  );

const openJobKeysRow = z.strictObject({ key: z.string() });

/** Keys of the jobs of a queue that wait or are being done. */
export async function openJobKeys(db: Database, queue: string): Promise<Set<string>> {
  const rows = await query(
    db,
    openJobKeysRow,
    `select singleton_key as key from jobs.job
     where name = $1 and state in ('created', 'retry', 'active') and singleton_key is not null`,
    [queue],
  );
  return new Set(rows.map(({ key }) => key));
}

const countJobsRow = z.strictObject({ queue: z.string(), state: z.string(), n: z.number() });

/** How many jobs there are, by queue and state. */
export const countJobs = (db: Database): Promise<{ queue: string; state: string; n: number }[]> =>
  query(
    db,
    countJobsRow,
    `select name as queue, state::text, count(*)::int as n from jobs.job
     where name not like '\\_\\_%' group by 1, 2`,
  );

const countKeptResultsRow = z.strictObject({ n: z.number() });

/** How many sections of results are kept. */
export async function countKeptResults(db: Database): Promise<number> {
  const [found] = await query(db, countKeptResultsRow, 'select count(*)::int as n from results');
  return found?.n ?? 0;
}
