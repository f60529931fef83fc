import * as z from 'zod';
import type { ChildProcess } from 'node:child_process';
import { createHash } from 'node:crypto';
import { v7 as uuid } from 'uuid';
import { openDatabase } from '../../src/data';
import { query } from '../../src/data/database';
import { createFleet } from './fleet';
import { kill, startServer, startWorker, type Server } from './server';

/** What dies at random. */
const VICTIMS = ['server', 'worker', 'postmaster'] as const;
type Victim = (typeof VICTIMS)[number];

/** What became of a run of kills. */
export interface KillCount {
  kills: Record<Victim, number>;
  /** Entries that were acknowledged, by what they are. */
  acknowledged: { readings: number; batches: number; prints: number; keyed: number; files: number };
  /** What does not agree with what was acknowledged, in words; nothing where all is well. */
  faults: string[];
}

const BATCH = 3;
const WRITERS = 3;
/** Of each kind of entry so many are acknowledged at least before a run is over. */
const ENOUGH = 4;

/** A generator of numbers from 0 to 1 that is the same for the same seed (mulberry32). */
function seeded(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = Math.imul(state ^ (state >>> 15), state | 1);
    mixed ^= mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61);
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 2 ** 32;
  };
}

const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

/**
 * Enters readings, prints and files without a pause, each sent again until it is acknowledged, while the server,
 * the worker and the database's postmaster are killed at random; then looks whether all that was acknowledged is
 * there, once and whole.
 *
 * @param crash kills the postmaster, and starts it again
 * @param seed the same seed kills the same victims after the same pauses
 */
export async function killAtRandom(
  databaseUrl: string,
  crash: () => Promise<void>,
  {
    kills,
    seed,
    tell = () => undefined,
  }: { kills: number; seed: number; tell?: (done: number) => void },
): Promise<KillCount> {
  // What is written draws from a stream of its own: how far it came must not decide who dies.
  const random = seeded(seed);
  const values = seeded(seed + 1);
  // That the database is away is said again and again: here that is no news.
  const quiet = { LOG_LEVEL: 'silent' };
  const env = { ...quiet, JOBS: 'elsewhere' };
  let server: Server = await startServer(databaseUrl, { env });
  let worker: ChildProcess = await startWorker(databaseUrl, quiet);
  const { port, url } = server;
  const study = await createFleet(url, 1);
  const at = `${url}/api/v1/studies/${study}`;
  let isOver = false;
  const sent = {
    readings: new Set<string>(),
    batches: [] as string[][],
    prints: new Set<string>(),
    keyed: new Set<string>(),
    files: new Map<string, string>(),
  };
  const faults: string[] = [];

  /** Sends something until it is acknowledged. @returns its answer */
  const insist = async (
    method: string,
    path: string,
    content: unknown,
    key?: string,
  ): Promise<Record<string, unknown>> => {
    for (;;) {
      try {
        const isBytes = content instanceof Uint8Array;
        const answer = await fetch(at + path, {
          method,
          headers: {
            connection: 'close',
            ...(!isBytes && { 'content-type': 'application/json' }),
            ...(key && { 'idempotency-key': key }),
          },
          body: isBytes ? (content as BodyInit) : JSON.stringify(content),
          signal: AbortSignal.timeout(20_000),
        });
        const text = await answer.text();
        // A head without its content is of a process that died between them: it is asked again.
        if (answer.ok && text !== '') return JSON.parse(text) as Record<string, unknown>;
        if (answer.ok) continue;
        // It was done, and the process died before it could say so; a file goes on from where it stands.
        if (answer.status === 409 && (key || isBytes)) return {};
        if (answer.status < 500) {
          faults.push(`${method} ${path} was refused with ${answer.status}: ${text.slice(0, 300)}`);
          return {};
        }
      } catch {
        // Whoever listened is dead.
      }
      if (isOver && faults.length > 0) return {};
      await pause(50);
    }
  };

  await insist(
    'POST',
    '/rows/dimensions',
    {
      artefact_id: 'clip',
      dimension_id: 'w',
      name: 'w',
      axis: 'x',
      kind: 'external',
      nominal_mm: 20,
    },
    uuid(),
  );
  await insist(
    'POST',
    '/rows/instruments',
    { instrument_id: 'cal', name: 'Caliper', kind: 'caliper', resolution_mm: 0.01 },
    uuid(),
  );
  let repeat = 0;
  const reading = (specimen_id: string, trial: number) => ({
    reading_id: uuid(),
    specimen_id,
    dimension_id: 'w',
    trial,
    value_mm: 20 + values() / 10,
    instrument_id: 'cal',
    operator: 'TS',
    at: '2026-03-02T09:12:00+01:00',
  });
  const write = async () => {
    while (!isOver) {
      repeat += 1;
      const print_id = `P-${repeat}`;
      const specimens = [1, 2].map((copy) => ({
        specimen_id: `${print_id}-${copy}`,
        print_id,
        copy,
      }));
      const print = {
        print_id,
        contender_id: 'c-1',
        artefact_id: 'clip',
        material_id: 'pla',
        repeat,
        outcome: 'success',
        print_s: 600,
      };
      await insist('POST', '/prints', { print, specimens });
      sent.prints.add(print_id);
      const single = reading(`${print_id}-1`, 1);
      await insist('POST', '/readings', single);
      sent.readings.add(single.reading_id);
      const batch = Array.from({ length: BATCH }, (_, trial) =>
        reading(`${print_id}-2`, trial + 1),
      );
      await insist('POST', '/readings/batch', { readings: batch });
      sent.batches.push(batch.map((one) => one.reading_id));
      const incident_id = `i-${print_id}`;
      await insist(
        'POST',
        '/rows/incidents',
        {
          incident_id,
          print_id,
          machine_id: 'm-1',
          at: '2026-03-02T09:12:00+01:00',
          mode: 'clogged',
          cause: 'machine',
        },
        uuid(),
      );
      sent.keyed.add(incident_id);
    }
  };
  const sendFiles = async () => {
    for (let file = 1; !isOver; file += 1) {
      const bytes = new TextEncoder().encode(
        `; file ${file}\nG28\n` +
          `${Array.from({ length: 300 }, (_, line) => `G1 X${line % 90} Y${(line * 7) % 90} E0.1 F1800\n`).join('')}`,
      );
      const sha256 = createHash('sha256').update(bytes).digest('hex');
      const name = `part-${file}.gcode`;
      await insist('POST', '/sliced-files', { name, bytes: bytes.length, sha256 });
      // What arrived before a kill need not be sent again: where it stands is asked anew.
      for (let isThere = false; !isThere;) {
        const { received, path } = await insist('POST', '/sliced-files', {
          name,
          bytes: bytes.length,
          sha256,
        });
        if (path !== undefined) isThere = true;
        else {
          await insist(
            'PUT',
            `/sliced-files/uploads/${sha256}?offset=${Number(received)}`,
            bytes.subarray(Number(received)),
          );
        }
      }
      sent.files.set(name, sha256);
      await pause(150);
    }
  };
  const count: Record<Victim, number> = { server: 0, worker: 0, postmaster: 0 };
  const isEnough = () =>
    Math.min(
      sent.readings.size,
      sent.batches.length,
      sent.prints.size,
      sent.keyed.size,
      sent.files.size,
    ) >= ENOUGH;
  let left: Victim[] = [];
  const strike = async () => {
    for (let done = 0; done < kills; done += 1) {
      await pause(100 + random() * 900);
      // Each dies as often as the others, in an order that is drawn anew every time.
      if (left.length === 0) left = [...VICTIMS];
      const [victim = 'server'] = left.splice(Math.floor(random() * left.length), 1);
      watch('server', server.child);
      watch('worker', worker);
      if (victim === 'server') {
        await kill(server.child);
        server = await startServer(databaseUrl, { env, port });
      } else if (victim === 'worker') {
        await kill(worker);
        worker = await startWorker(databaseUrl, quiet);
      } else await crash();
      count[victim] += 1;
      tell(done + 1);
    }
    while (!isEnough() && faults.length === 0) await pause(100);
    isOver = true;
  };
  const watch = (name: string, child: ChildProcess) => {
    if (child.exitCode !== null) faults.push(`the ${name} ended by itself with ${child.exitCode}`);
  };
  await Promise.all([strike(), sendFiles(), ...Array.from({ length: WRITERS }, write)]);
  const db = openDatabase(databaseUrl);
  try {
    const ask = <Shape extends z.ZodRawShape>(row: Shape, sql: string) =>
      query(db, z.strictObject(row), sql, [study]);
    // What was sent is read to its end by whoever works now.
    for (let patience = 600; patience > 0; patience -= 1) {
      const [left] = await ask(
        { n: z.number() },
        `select count(*)::int as n from sliced_files where study_id = $1 and state <> 'read'`,
      );
      if (left?.n === 0) break;
      if (patience === 1) faults.push(`${left?.n} files were never read`);
      await pause(100);
    }
    const readings = await ask(
      { reading_id: z.string(), place: z.string() },
      `select reading_id, specimen_id || ' ' || trial as place from readings where study_id = $1`,
    );
    const there = new Set(readings.map((row) => row.reading_id));
    const lost = [...sent.readings, ...sent.batches.flat()].filter((id) => !there.has(id));
    const expected = sent.readings.size + BATCH * sent.batches.length;
    if (lost.length > 0) faults.push(`${lost.length} acknowledged readings are lost`);
    if (readings.length !== expected)
      faults.push(`${readings.length} readings are there, ${expected} were acknowledged`);
    const places = new Set(readings.map((row) => row.place));
    if (places.size !== readings.length) faults.push('readings are there twice');
    const prints = await ask(
      { print_id: z.string(), parts: z.number() },
      'select p.print_id, (select count(*)::int from specimens s where s.study_id = p.study_id ' +
        'and s.print_id = p.print_id) as parts from prints p where study_id = $1',
    );
    if (prints.length !== sent.prints.size)
      faults.push(`${prints.length} prints are there, ${sent.prints.size} were acknowledged`);
    const half = prints.filter(({ parts }) => parts !== 2);
    if (half.length > 0) faults.push(`${half.length} prints came without all of their parts`);
    const incidents = await ask(
      { incident_id: z.string() },
      'select incident_id from incidents where study_id = $1',
    );
    if (incidents.length !== sent.keyed.size)
      faults.push(`${incidents.length} incidents are there, ${sent.keyed.size} were acknowledged`);
    const files = await ask(
      { path: z.string() },
      'select path from sliced_files where study_id = $1',
    );
    if (files.length !== sent.files.size)
      faults.push(`${files.length} files are there, ${sent.files.size} were acknowledged`);
  } finally {
    await db.sequelize.close();
    await Promise.all([kill(server.child), kill(worker)]);
  }
  return {
    kills: count,
    acknowledged: {
      readings: sent.readings.size,
      batches: sent.batches.length,
      prints: sent.prints.size,
      keyed: sent.keyed.size,
      files: sent.files.size,
    },
    faults,
  };
}
