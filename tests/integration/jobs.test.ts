import * as z from 'zod';
import { pino } from 'pino';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { bePresent, listOrphans, openJobKeys, type Database } from '../../src/data';
import { execute, query } from '../../src/data/database';
import { openQueue } from '../../src/server/jobs/queue';
import { freshDatabase } from '../support/database';

let url: string;
let db: Database;
let drop: () => Promise<void>;

beforeAll(async () => {
  ({ url, db, drop } = await freshDatabase());
});
afterAll(() => drop());

const log = pino({ level: 'silent' });

it('a job that dies is tried once more, told that it is the last time, and the queue lives on', async () => {
  const tries: { name: string; isLastTry: boolean }[] = [];
  const presence = await bePresent(url);
  const queue = await openQueue(
    url,
    { db, log, presence, isWorking: true },
    {
      'sliced-file': (job: { name: string }, isLastTry) => {
        tries.push({ name: job.name, isLastTry });
        return job.name === 'good' ? Promise.resolve() : Promise.reject(new Error('died'));
      },
      photo: () => Promise.resolve(),
      report: () => Promise.resolve(),
    },
  );
  await queue.send('sliced-file', { name: 'dies' }, 'dies', true);
  await expect.poll(() => tries.length, { timeout: 15_000 }).toBe(2);
  await queue.send('sliced-file', { name: 'good' }, 'good', true);
  await expect.poll(() => tries.length, { timeout: 15_000 }).toBe(3);
  await queue.stop();
  await presence.end();
  expect(tries).toEqual([
    { name: 'dies', isLastTry: false },
    { name: 'dies', isLastTry: true },
    { name: 'good', isLastTry: false },
  ]);
});

it('what a process was doing that is gone is taken up by another, and what one does that is there is not', async () => {
  const [one, another] = [await bePresent(url), await bePresent(url)];
  expect([one.isAlone, another.isAlone]).toEqual([true, false]);
  const done: string[] = [];
  let begun = 0;
  let [letGo]: (() => void)[] = [() => undefined];
  const held = new Promise<void>((resolve) => (letGo = resolve));
  const handlers = (name: string, wait: Promise<void>) => ({
    'sliced-file': async () => {
      begun += 1;
      await wait;
      done.push(name);
    },
    photo: () => Promise.resolve(),
    report: () => Promise.resolve(),
  });
  const dying = await openQueue(
    url,
    { db, log, presence: one, isWorking: true },
    handlers('one', held),
  );
  // Both of its hands are full, so that it takes none of them a second time.
  for (const name of ['long', 'longer']) await dying.send('sliced-file', { name }, name, true);
  await expect.poll(() => begun, { timeout: 15_000 }).toBe(2);
  // It is at it still, and nobody takes it away.
  expect(await listOrphans(db)).toEqual([]);
  const next = await openQueue(
    url,
    { db, log, presence: another, isWorking: true },
    handlers('another', Promise.resolve()),
  );
  await one.end();
  await expect.poll(() => done, { timeout: 20_000 }).toEqual(['another', 'another']);
  letGo?.();
  await Promise.all([dying.stop(), next.stop()]);
  await another.end();
});

it('a job that ended and could not say so is done by its own process, one that is at it is not', async () => {
  const presence = await bePresent(url);
  const done: string[] = [];
  let [letGo]: (() => void)[] = [() => undefined];
  const held = new Promise<void>((resolve) => (letGo = resolve));
  const queue = await openQueue(
    url,
    { db, log, presence, isWorking: true },
    {
      'sliced-file': async ({ name }: { name: string }) => {
        if (name === 'slow') await held;
        done.push(name);
      },
      photo: () => Promise.resolve(),
      report: () => Promise.resolve(),
    },
  );
  await queue.send('sliced-file', { name: 'mute' }, 'mute', true);
  await expect.poll(() => done, { timeout: 15_000 }).toEqual(['mute']);
  const state = async () =>
    (
      await query(
        db,
        z.strictObject({ state: z.string() }),
        `select state from jobs.job where singleton_key = 'mute'`,
      )
    )[0]?.state;
  await expect.poll(state).toBe('completed');
  await queue.send('sliced-file', { name: 'slow' }, 'slow', true);
  // As it stands when the database went away before the end could be told.
  await execute(
    db,
    `update jobs.job set state = 'active', completed_on = null where singleton_key = 'mute'`,
  );
  await execute(
    db,
    'insert into jobs_at_work (job_id, queue, process) select id, name, $1 from jobs.job where ' +
      `singleton_key = 'mute' on conflict (job_id) do update set process = excluded.process`,
    [presence.number],
  );
  await expect.poll(() => done, { timeout: 30_000 }).toEqual(['mute', 'mute']);
  // What is under way is known by its key, and nobody begins it anew.
  expect([...(await openJobKeys(db, 'sliced-file'))]).toContain('slow');
  letGo?.();
  await expect.poll(() => done, { timeout: 15_000 }).toEqual(['mute', 'mute', 'slow']);
  await queue.stop();
  await presence.end();
});

it('a process that leaves jobs to others hands them in and does none', async () => {
  const [presence, worker] = [await bePresent(url), await bePresent(url)];
  const done: string[] = [];
  const handlers = (name: string) => ({
    'sliced-file': () => Promise.resolve(void done.push(name)),
    photo: () => Promise.resolve(),
    report: () => Promise.resolve(),
  });
  const web = await openQueue(url, { db, log, presence, isWorking: false }, handlers('web'));
  await web.send('sliced-file', { name: 'a' }, 'a', true);
  const working = await openQueue(
    url,
    { db, log, presence: worker, isWorking: true },
    handlers('worker'),
  );
  await expect.poll(() => done, { timeout: 15_000 }).toEqual(['worker']);
  await Promise.all([web.stop(), working.stop()]);
  await Promise.all([presence.end(), worker.end()]);
});
