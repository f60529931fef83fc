import PgBoss from 'pg-boss';
import type { Logger } from 'pino';
import {
  beginJob,
  jobsBegunBy,
  oneAtATime,
  SteadyClient,
  listOrphans,
  type Database,
  type Presence,
} from '../../data';

/** Work that outlives a request and a process: kept in the database until it is done. */
export interface JobQueue {
  /** @param isUrgent whether somebody waits for it: it goes before what was left from earlier */
  send(queue: QueueName, data: object, key: string, isUrgent: boolean): Promise<void>;
  stop(): Promise<void>;
}

export type QueueName = 'sliced-file' | 'photo' | 'report';

/** What does the jobs of a queue. It is told when there will be no further try. */
export type JobHandler = (data: never, isLastTry: boolean) => Promise<void>;

const TRIES = 2;
const AT_ONCE = 2;
const POLLING = { includeMetadata: true, pollingIntervalSeconds: 1, batchSize: 1 } as const;
const LONGEST_JOB_S = 2 * 60 * 60;
const LOOK_FOR_ORPHANS_MS = 5000;

/** Who works on the queue. */
export interface Workplace {
  db: Database;
  log: Logger;
  presence: Presence;
  /** Whether this process works on jobs, or only hands them in. */
  isWorking: boolean;
}

/**
 * Opens the queue. What a process was doing that is not there any more is taken up by those that are.
 *
 * @param handlers what does the jobs
 */
export async function openQueue(
  databaseUrl: string,
  { db, log, presence, isWorking }: Workplace,
  handlers: Record<QueueName, JobHandler>,
): Promise<JobQueue> {
  // The queue hands what it is given on to the pool of its connections.
  const pool = { connectionString: databaseUrl, max: 3, Client: SteadyClient };
  const boss = new PgBoss({ ...pool, schema: 'jobs' });
  boss.on('error', (error) => log.error(error, 'job queue'));
  await boss.start();
  const workers = new Map<string, string[]>();
  /** The jobs that this process is doing now. */
  const doing = new Set<string>();
  const wake = (ids: readonly string[]) => {
    for (const id of ids) boss.notifyWorker(id);
  };
  const work = async (
    queue: string,
    handle: JobHandler,
    job: PgBoss.JobWithMetadata<object> | undefined,
  ): Promise<void> => {
    if (!job) return;
    const ids = workers.get(queue) ?? [];
    // Whoever ends a job looks for the next one at once, not at the next turn of the clock.
    setTimeout(() => wake(ids), 5).unref();
    doing.add(job.id);
    try {
      await beginJob(db, job.id, queue, presence.number);
      await handle(job.data as never, job.retryCount >= job.retryLimit);
    } finally {
      doing.delete(job.id);
      setTimeout(() => wake(ids), 5).unref();
    }
  };
  // Making queues makes tables: of processes that start at once one does, and nobody works meanwhile.
  await oneAtATime(db, 'queues', () => makeQueues(boss, Object.keys(handlers)));
  for (const [queue, handle] of Object.entries(handlers)) {
    if (presence.isAlone) await giveBack(boss, queue);
    if (!isWorking) continue;
    const own: string[] = [];
    workers.set(queue, own);
    for (let worker = 0; worker < AT_ONCE; worker += 1) {
      own.push(await boss.work<object>(queue, POLLING, ([job]) => work(queue, handle, job)));
    }
  }
  /** Own jobs that were ended the last time that it was looked, and are said to be under way. */
  let ended = new Set<string>();
  const adopt = async () => {
    for (const { job_id, queue } of await listOrphans(db)) await abandon(boss, queue, job_id);
    // One that ended while the database was away could not say so: it is under way for ever.
    const own = (await jobsBegunBy(db, presence.number)).filter(({ job_id }) => !doing.has(job_id));
    for (const { job_id, queue } of own) if (ended.has(job_id)) await abandon(boss, queue, job_id);
    ended = new Set(own.map(({ job_id }) => job_id));
  };
  const looking = setInterval(() => {
    adopt().catch((error: unknown) => log.error(error, 'jobs of processes that are gone'));
  }, LOOK_FOR_ORPHANS_MS);
  looking.unref();
  return {
    send: async (queue, data, key, isUrgent) => {
      await boss.send(queue, data, { singletonKey: key, priority: isUrgent ? 1 : 0 });
      wake(workers.get(queue) ?? []);
    },
    stop: async () => {
      clearInterval(looking);
      await boss.stop({ graceful: true, wait: true, timeout: 5000 });
    },
  };
}

/** Makes the queues that there are not yet. */
async function makeQueues(boss: PgBoss, names: readonly string[]): Promise<void> {
  const known = new Set((await boss.getQueues()).map(({ name }) => name));
  for (const name of names) {
    if (known.has(name)) continue;
    await boss.createQueue(name, {
      name,
      policy: 'short',
      retryLimit: TRIES - 1,
      retryDelay: 1,
      expireInSeconds: LONGEST_JOB_S,
    });
  }
}

/** Has a job done again that nobody is doing any more. */
const abandon = (boss: PgBoss, queue: string, id: string): Promise<void> =>
  boss.fail(queue, id, { reason: 'its process was killed' });

/** Gives back the jobs that a process was doing when it was killed. */
async function giveBack(boss: PgBoss, queue: string): Promise<void> {
  const { rows }: { rows: { id: string }[] } = await boss
    .getDb()
    .executeSql("select id from jobs.job where name = $1 and state = 'active'", [queue]);
  for (const { id } of rows) await abandon(boss, queue, id);
}
