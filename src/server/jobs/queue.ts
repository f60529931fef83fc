import PgBoss from 'pg-boss';
import type { Logger } from 'pino';
import { SteadyClient } from '../../data';

/** Work that outlives a request and a process: kept in the database until it is done. */
export interface JobQueue {
  /** @param isUrgent whether somebody waits for it: it goes before what was left from earlier */
  send(queue: QueueName, data: object, key: string, isUrgent: boolean): Promise<void>;
  stop(): Promise<void>;
}

export type QueueName = 'sliced-file' | 'photo';

/** What does the jobs of a queue. It is told when there will be no further try. */
export type JobHandler = (data: never, isLastTry: boolean) => Promise<void>;

const TRIES = 2;
const AT_ONCE = 2;
const POLLING = { includeMetadata: true, pollingIntervalSeconds: 1, batchSize: 1 } as const;
const LONGEST_JOB_S = 2 * 60 * 60;

/**
 * Opens the queue and works on it in this process.
 *
 * @param isAlone whether no other process works on it: what is being done then is done by nobody
 */
export async function openQueue(
  databaseUrl: string,
  log: Logger,
  isAlone: boolean,
  handlers: Record<QueueName, JobHandler>,
): Promise<JobQueue> {
  // The queue hands what it is given on to the pool of its connections.
  const pool = { connectionString: databaseUrl, max: 3, Client: SteadyClient };
  const boss = new PgBoss({ ...pool, schema: 'jobs' });
  boss.on('error', (error) => log.error(error, 'job queue'));
  await boss.start();
  const workers = new Map<string, string[]>();
  const wake = (ids: readonly string[]) => {
    for (const id of ids) boss.notifyWorker(id);
  };
  const work = async (
    ids: readonly string[],
    handle: JobHandler,
    job: PgBoss.JobWithMetadata<object> | undefined,
  ): Promise<void> => {
    if (!job) return;
    // Whoever ends a job looks for the next one at once, not at the next turn of the clock.
    setTimeout(() => wake(ids), 5).unref();
    try {
      await handle(job.data as never, job.retryCount >= job.retryLimit);
    } finally {
      setTimeout(() => wake(ids), 5).unref();
    }
  };
  for (const [queue, handle] of Object.entries(handlers)) {
    await boss.createQueue(queue, {
      name: queue,
      policy: 'short',
      retryLimit: TRIES - 1,
      retryDelay: 1,
      expireInSeconds: LONGEST_JOB_S,
    });
    if (isAlone) await giveBack(boss, queue);
    const own: string[] = [];
    for (let worker = 0; worker < AT_ONCE; worker += 1) {
      own.push(await boss.work<object>(queue, POLLING, ([job]) => work(own, handle, job)));
    }
    workers.set(queue, own);
  }
  return {
    send: async (queue, data, key, isUrgent) => {
      await boss.send(queue, data, { singletonKey: key, priority: isUrgent ? 1 : 0 });
      wake(workers.get(queue) ?? []);
    },
    stop: () => boss.stop({ graceful: true, wait: true, timeout: 5000 }),
  };
}

/** Gives back the jobs that a process was doing when it was killed. */
async function giveBack(boss: PgBoss, queue: string): Promise<void> {
  const { rows }: { rows: { id: string }[] } = await boss
    .getDb()
    .executeSql("select id from jobs.job where name = $1 and state = 'active'", [queue]);
  for (const { id } of rows) await boss.fail(queue, id, { reason: 'its process was killed' });
}
