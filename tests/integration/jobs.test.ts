import { pino } from 'pino';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { openQueue } from '../../src/server/jobs/queue';
import { freshDatabase } from '../support/database';

let url: string;
let drop: () => Promise<void>;

beforeAll(async () => {
  ({ url, drop } = await freshDatabase());
});
afterAll(() => drop());

it('a job that dies is tried once more, told that it is the last time, and the queue lives on', async () => {
  const tries: { name: string; isLastTry: boolean }[] = [];
  const queue = await openQueue(url, pino({ level: 'silent' }), true, {
    'sliced-file': (job: { name: string }, isLastTry) => {
      tries.push({ name: job.name, isLastTry });
      return job.name === 'good' ? Promise.resolve() : Promise.reject(new Error('died'));
    },
    photo: () => Promise.resolve(),
  });
  await queue.send('sliced-file', { name: 'dies' }, 'dies', true);
  await expect.poll(() => tries.length, { timeout: 15_000 }).toBe(2);
  await queue.send('sliced-file', { name: 'good' }, 'good', true);
  await expect.poll(() => tries.length, { timeout: 15_000 }).toBe(3);
  await queue.stop();
  expect(tries).toEqual([
    { name: 'dies', isLastTry: false },
    { name: 'dies', isLastTry: true },
    { name: 'good', isLastTry: false },
  ]);
});
