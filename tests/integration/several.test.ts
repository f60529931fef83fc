import type { ChildProcess } from 'node:child_process';
import { createHash } from 'node:crypto';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { generate } from 'selfsigned';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { morning } from '../../simulator/morning';
import { play } from '../../simulator/play';
import { timeline } from '../../simulator/timeline';
import type { AnyRow } from '../../src/core/model/study';
import { apiOf } from '../support/api';
import { BROKER_USER, outsideBroker } from '../support/broker';
import { freshDatabase } from '../support/database';
import { createFleet } from '../support/fleet';
import { kill, startServer, startWorker, type Server } from '../support/server';

// Two processes that answer, two that work on jobs, and somebody else's broker, on one database.
let fresh: Awaited<ReturnType<typeof freshDatabase>>;
let broker: Awaited<ReturnType<typeof outsideBroker>>;
const folder = mkdtempSync(join(tmpdir(), 'vergleich-several-'));
const servers: Server[] = [];
const workers: ChildProcess[] = [];
const api = [0, 1].map((at) => apiOf(() => servers[at]?.url ?? ''));

beforeAll(async () => {
  fresh = await freshDatabase();
  const certificate = await generate([{ name: 'commonName', value: 'a broker' }], {
    keyType: 'ec',
    algorithm: 'sha256',
    extensions: [{ name: 'subjectAltName', altNames: [{ type: 7, ip: '127.0.0.1' }] }],
  });
  const ca = join(folder, 'broker.pem');
  writeFileSync(ca, certificate.cert);
  broker = await outsideBroker({ key: certificate.private, cert: certificate.cert });
  const env = {
    JOBS: 'elsewhere',
    MQTT_URL: broker.secure,
    MQTT_USERNAME: BROKER_USER.name,
    MQTT_PASSWORD: BROKER_USER.password,
    MQTT_CA: ca,
  };
  // At once, on an empty database: one makes its tables, the other waits.
  const [first, worker] = await Promise.all([
    startServer(fresh.url, { env }),
    startWorker(fresh.url),
  ]);
  servers.push(first);
  workers.push(worker);
  while (broker.came.length === 0) await new Promise((resolve) => setTimeout(resolve, 50));
  servers.push(await startServer(fresh.url, { env }));
  workers.push(await startWorker(fresh.url));
});
afterAll(async () => {
  await Promise.all([...servers.map(({ child }) => kill(child)), ...workers.map(kill)]);
  await broker.close();
  await fresh.drop();
  rmSync(folder, { recursive: true, force: true });
});

describe('several processes on one database', () => {
  it('hear a morning of the bench link by one of them, and by another when that one dies', async () => {
    // Whoever asks is told the address, and not how one comes in there.
    expect(servers.map(({ link }) => link)).toEqual([broker.secure, broker.secure]);
    expect(broker.came).toHaveLength(1);
    const study = await createFleet(servers[1]?.url ?? '', 12, { isLinked: true });
    const path = (table: string) => `/studies/${study}/rows/${table}`;
    const rows = (table: string) => api[1]?.get<AnyRow[]>(path(table)) ?? [];
    const machines = morning(12).map((own, at) =>
      play(timeline(`s${at}`, own), {
        broker: broker.plain,
        machine: `m-${at + 1}`,
        speed: 1200,
        from: new Date('2026-03-02T06:00:00Z'),
      }),
    );
    await expect
      .poll(async () => (await rows('prints')).length, { timeout: 60_000 })
      .toBeGreaterThanOrEqual(4);
    // The one that listens dies in the middle of it, and the other one is there under the same name.
    const listener = broker.came[0];
    await kill(servers[0]?.child as ChildProcess);
    await expect
      .poll(() => broker.came.filter((name) => name === listener).length, { timeout: 20_000 })
      .toBe(2);
    await Promise.all(machines);
    await expect.poll(async () => (await rows('prints')).length, { timeout: 60_000 }).toBe(24);
    const prints = await rows('prints');
    expect(prints.filter((row) => row.outcome === 'failed')).toHaveLength(2);
    const incidents = (await rows('incidents')).map((row) => `${row.machine_id} ${row.mode}`);
    expect(incidents.sort()).toEqual(['m-3 stalled', 'm-6 detached', 'm-8 clogged']);
    const paused = prints.find((row) => row.contender_id === 'c-2' && row.repeat === 1);
    expect(paused).toMatchObject({ outcome: 'success', paused_s: 420, print_s: 3840 });
  });

  it('read what is sent to one by those that work on jobs, though one of these is killed', async () => {
    const { url } = servers[1] as Server;
    const study = await createFleet(url, 1);
    const base = `/studies/${study}/sliced-files`;
    const send = async (name: string) => {
      const layers = Array.from(
        { length: 4000 },
        (_, at) => `G1 X${at % 90} Y${(at * 7) % 90} E0.1 F${1800 + at}`,
      );
      const bytes = new TextEncoder().encode([`; ${name}`, 'G28', ...layers, ''].join('\n'));
      const sha256 = createHash('sha256').update(bytes).digest('hex');
      await api[1]?.call('POST', base, { name, bytes: bytes.length, sha256 });
      const sent = await api[1]?.call('PUT', `${base}/uploads/${sha256}?offset=0`, bytes);
      expect(sent?.status).toBe(200);
    };
    await Promise.all(Array.from({ length: 8 }, (_, at) => send(`part-${at}.gcode`)));
    await kill(workers[0] as ChildProcess);
    const states = async () => {
      const files = (await api[1]?.get<{ state: string }[]>(base)) ?? [];
      return files.map(({ state }) => state);
    };
    await expect.poll(states, { timeout: 60_000 }).toEqual(Array(8).fill('read'));
  });
});
