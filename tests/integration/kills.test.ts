import { afterAll, beforeAll, expect, it } from 'vitest';
import { startCluster } from '../../scripts/lib/postgres.mjs';
import { killAtRandom } from '../support/kills';

let cluster: Awaited<ReturnType<typeof startCluster>>;
beforeAll(async () => {
  // One that writes to its disk before it says so.
  cluster = await startCluster('kills');
});
afterAll(() => cluster.stop());

it('whatever is killed, nothing that was acknowledged is lost, there twice or half', async () => {
  const databaseUrl = await cluster.createDatabase(`kills_${Date.now()}`);
  const { kills, acknowledged, faults } = await killAtRandom(databaseUrl, cluster.crash, {
    kills: 6,
    seed: 4711,
  });
  expect(faults).toEqual([]);
  // Each of them was killed, and there was something to lose.
  expect(kills).toEqual({ server: 2, worker: 2, postmaster: 2 });
  for (const count of Object.values(acknowledged)) expect(count).toBeGreaterThan(3);
}, 300_000);
