import mqtt from 'mqtt';
import { morning } from '../../simulator/morning';
import { play } from '../../simulator/play';
import { timeline } from '../../simulator/timeline';
import { TOPICS } from '../../src/core/model/link';
import type { AnyRow } from '../../src/core/model/study';
import { createFleet } from '../support/fleet';
import { expect, expectAccessible, open, test } from './bench';

const FROM = new Date('2026-03-02T06:00:00Z');

test('a morning of twelve machines on the link: ledger, outcomes and incidents are right', async ({
  page,
  bench,
}) => {
  test.setTimeout(480_000);
  const study = await createFleet(bench.url, 12, { isLinked: true });
  const rows = async (table: string): Promise<AnyRow[]> =>
    (await fetch(`${bench.url}/api/v1/studies/${study}/rows/${table}`)).json() as Promise<AnyRow[]>;
  const jobs = morning(12);
  let isKilled = false;
  await Promise.all([
    ...jobs.map((own, at) =>
      play(timeline(`s${at}`, own), {
        broker: bench.link(),
        machine: `m-${at + 1}`,
        speed: 1200,
        from: FROM,
      }),
    ),
    (async () => {
      // In the middle of the morning the server dies; the machines speak on when it is back.
      await expect
        .poll(async () => (await rows('prints')).length, { timeout: 240_000 })
        .toBeGreaterThanOrEqual(4);
      await bench.stop();
      isKilled = true;
      await bench.start();
    })(),
  ]);
  expect(isKilled).toBe(true);
  const client = await mqtt.connectAsync(bench.link());
  await client.publishAsync(TOPICS.state('m-1'), '{"state":"flying"}', { qos: 1 });
  await client.publishAsync(TOPICS.state('m-1'), 'x'.repeat(1_000_000), { qos: 1 });
  await client.endAsync();
  await expect.poll(async () => (await rows('prints')).length, { timeout: 240_000 }).toBe(24);
  const prints = await rows('prints');
  const ofMachine = (machine: number, repeat: number) =>
    prints.find((row) => row.contender_id === `c-${machine}` && row.repeat === repeat);
  expect(prints.filter((row) => row.outcome === 'failed')).toHaveLength(2);
  expect(ofMachine(6, 1)).toMatchObject({ outcome: 'failed', progress_pct: 31 });
  expect(ofMachine(1, 1)).toMatchObject({ outcome: 'success', heat_s: 180, print_s: 3600 });
  const incidents = await rows('incidents');
  expect(incidents.map((row) => `${row.machine_id} ${row.mode}`).sort()).toEqual([
    'm-3 stalled',
    'm-6 detached',
    'm-8 clogged',
  ]);
  expect(Number(incidents.find((row) => row.mode === 'stalled')?.downtime_s)).toBeGreaterThan(1400);
  const paused = ofMachine(2, 1);
  expect(paused).toMatchObject({ outcome: 'success', paused_s: 420, print_s: 3840 });
  await open(page, `${bench.url}/studies/${study}/runs`);
  await expect(page.getByText('24 prints ended')).toBeVisible();
  await expect(page.getByRole('region', { name: 'Bench link' })).toContainText('12 machines heard');
  await expect(page.getByRole('region', { name: 'Bench link' })).toContainText(
    '1 message dropped: not the JSON that the link expects',
  );
  await expect(page.getByRole('region', { name: 'Bench link' })).toContainText(
    '1 message dropped: longer than 16 KiB',
  );
  await expectAccessible(page);
});
