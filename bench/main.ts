import { v7 as uuid } from 'uuid';
import { evaluate } from '../src/core/evaluate';
import { memorySource, readPackage, writePackage } from '../src/core/package';
import {
  insertReadings,
  migrate,
  openDatabase,
  storeStudy,
  transact,
  writeStudy,
  type Database,
} from '../src/data';
import { measurePhoto } from '../src/core/image';
import { fillScorecard, type Card } from '../src/core/scorecard';
import { PHOTO_MEASURES, type Study } from '../src/core/study';
import { farmStudy } from './farm';
import { median, type Line } from './line';
import { syntheticStudy } from './synthetic';
import { analysisRate, plainReaderRate, syntheticSlicedFile } from './toolpath';

export { benchCommand } from './command';
export { benchFirstLook } from './first-look';
export { benchKills } from './kills';
export { benchPhotos } from './photos';
export { benchReport } from './report';

const p95 = (values: number[]): number => {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.floor(0.95 * sorted.length)] ?? NaN;
};

async function timed(work: () => unknown): Promise<number> {
  const started = performance.now();
  await work();
  return performance.now() - started;
}

async function repeated(times: number, work: () => unknown): Promise<number[]> {
  const all: number[] = [];
  for (let at = 0; at < times; at += 1) all.push(await timed(work));
  return all;
}

const line = (what: string, ms: number, barMs: number | null): Line => ({
  what,
  figure: `${ms.toFixed(ms < 100 ? 1 : 0)} ms`,
  bar: barMs === null ? '' : `< ${barMs} ms`,
  isMet: barMs === null || ms < barMs,
});

/** Calculations alone: no database, no pages. */
export async function benchCore(): Promise<Line[]> {
  const study = await syntheticStudy(2000, 100_000);
  const texts = writePackage(study);
  const encoder = new TextEncoder();
  const source = memorySource(
    new Map([...texts].map(([path, text]) => [path, encoder.encode(text)])),
  );
  return [
    line(
      'evaluate 100 000 readings, 2 000 prints',
      median(await repeated(5, () => evaluate(study))),
      2000,
    ),
    line('read and check that package', median(await repeated(3, () => readPackage(source))), null),
    line('write that package', median(await repeated(3, () => writePackage(study))), null),
    line('scorecard: 20 000 draws, 12 criteria, 8 contenders', await scorecardTime(), 300),
    ...photoMeasures(),
  ];
}

/** A card of twelve criteria over eight contenders, all with intervals. */
async function scorecardTime(): Promise<number> {
  const contenders = Array.from({ length: 8 }, (_, at) => `C${at}`);
  const keys = Array.from({ length: 12 }, (_, at) => `limit:part/ladder-${at}`);
  const evidence = Object.fromEntries(
    keys.map((key, at) => [
      key,
      Object.fromEntries(
        contenders.map((id, other) => {
          const value = 40 + ((at * 7 + other * 11) % 30);
          return [id, { value, low: value - 6, high: value + 9, z: 1.96, bound: null }];
        }),
      ),
    ]),
  );
  const points = [[30, 0], [55, 0.7], [80, 1]] as const; // prettier-ignore
  const card: Card = {
    criteria: keys.map((key, at) => ({ key, weight: at + 1, points })),
    ...{ gates: [], draws: 20_000, concentration: 50 },
  };
  return median(await repeated(5, () => fillScorecard(card, evidence, contenders, 1)));
}

/** Each of the five measures on a region of 1500 × 1000 px. */
function photoMeasures(): Line[] {
  const [width, height] = [1500, 1000];
  const data = new Float64Array(width * height);
  for (let at = 0; at < data.length; at += 1) {
    const [x, y] = [at % width, Math.floor(at / width)];
    const wave = 0.04 * Math.exp(-x / 200) * Math.cos(x / 9) + 0.05 * Math.cos(y / 1.3);
    data[at] = 0.4 * (1 + wave + 0.02 * Math.sin((x * 12.9898 + y * 78.233) % 6.28));
  }
  const settings = { px_per_mm: 40, layer_height_mm: 0.2, speed_mm_s: 120 };
  return PHOTO_MEASURES.map((measure) => {
    const times = Array.from({ length: 5 }, () => {
      const began = performance.now();
      measurePhoto(measure, { width, height, data }, settings);
      return performance.now() - began;
    });
    return line(`photo measure, ${measure}, 1500 × 1000 px`, median(times), 150);
  });
}

/** Sliced files: megabytes a second, beside a reader that models nothing. */
export function benchToolpath(): Line[] {
  const file = syntheticSlicedFile(60e6);
  const rates = (read: (bytes: Uint8Array) => number) =>
    median(Array.from({ length: 3 }, () => read(file)));
  const plain = rates(plainReaderRate);
  const full = rates(analysisRate);
  const say = (rate: number) => `${rate.toFixed(1)} MB/s`;
  return [
    { what: 'plain line reader, the yardstick', figure: say(plain), bar: '', isMet: true },
    {
      what: `sliced file, full motion model (${(full / plain).toFixed(1)} × the yardstick)`,
      figure: say(full),
      bar: '≥ 25 MB/s',
      isMet: full >= 25,
    },
  ];
}

const store = (db: Database, studyId: string, study: Study): Promise<void> =>
  transact(db, (bound) =>
    storeStudy(bound, studyId, { study, packageExtras: {}, files: new Map(), history: [] }),
  );

/** A database with 30 000 readings; returns the study's id. */
export async function fillDatabase(databaseUrl: string): Promise<string> {
  const db = openDatabase(databaseUrl);
  await migrate(db.sequelize);
  const studyId = uuid();
  const study = await syntheticStudy(1000, 30_000);
  await store(db, studyId, study);
  await db.sequelize.close();
  return studyId;
}

/** The time of importing 100 000 readings, and of keeping one more. */
export async function benchDatabase(databaseUrl: string, studyId: string): Promise<Line[]> {
  const db = openDatabase(databaseUrl);
  const large = await syntheticStudy(2000, 100_000);
  const stored = await timed(() => store(db, uuid(), large));
  const keep = (at: number) =>
    writeStudy(db, studyId, 'bench', (write) =>
      insertReadings(write, [
        {
          reading_id: uuid(),
          specimen_id: `S-${at % 1000}`,
          dimension_id: 'x4',
          trial: 1,
          value_mm: 80.04,
          instrument_id: 'caliper-2',
          operator: 'bench',
          at: '2026-03-02T10:00:00+01:00',
          superseded_at: null,
        },
      ]),
    );
  const times: number[] = [];
  for (let at = 0; at < 300; at += 1) times.push(await timed(() => keep(at)));
  await db.sequelize.close();
  return [
    line('store a study of 100 000 readings', stored, null),
    line('keep one reading (p95), in the database', p95(times), 30),
  ];
}

/** The same over HTTP, and the results page. */
export async function benchServer(base: string, studyId: string): Promise<Line[]> {
  const page = `${base}/studies/${studyId}/results/accuracy`;
  const get = async (url: string) => (await fetch(url)).text();
  const first = await timed(() => get(page));
  await repeated(10, () => get(page));
  const cached = await repeated(100, () => get(page));
  const post = (at: number) =>
    fetch(`${base}/api/v1/studies/${studyId}/readings`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({
        reading_id: uuid(),
        specimen_id: `S-${at % 1000}`,
        dimension_id: 'x4',
        trial: 1,
        value_mm: 80.05,
        instrument_id: 'caliper-2',
        operator: 'http',
        at: null,
      }),
    });
  const posts: number[] = [];
  for (let at = 0; at < 200; at += 1) posts.push(await timed(() => post(at)));
  const freshAfter = (section: string) => async () => {
    await post(1);
    for (;;) {
      const answer = await fetch(`${base}/api/v1/studies/${studyId}/results/${section}`);
      const { stale } = (await answer.json()) as { stale: string[] };
      if (stale.length === 0) return;
    }
  };
  const glance = `${base}/studies/${studyId}/results/glance`;
  await repeated(5, () => get(glance));
  const glances = await repeated(50, () => get(glance));
  const fresh = await timed(freshAfter('pairs'));
  const criteria = await timed(freshAfter('criteria'));
  return [
    line('results page, 30 000 readings, the first time', first, null),
    line('results page, cached (median)', median(cached), null),
    line('results page, cached (p95)', p95(cached), 100),
    line('save one reading over HTTP (p95)', p95(posts), 30),
    line('at a glance, cached (p95)', p95(glances), 100),
    line('fresh verdicts after a reading', fresh, 1000),
    line('everything that a card weighs, fresh after a reading', criteria, 1000),
  ];
}

/** Stores a farm of 40 machines and 20 000 prints; returns the study's id. */
export async function fillFarm(databaseUrl: string): Promise<string> {
  const db = openDatabase(databaseUrl);
  await migrate(db.sequelize);
  const studyId = uuid();
  const study = farmStudy(40, 20_000);
  await store(db, studyId, study);
  await db.sequelize.close();
  return studyId;
}

/** How quickly the pages of a farm answer. */
export async function benchFarm(base: string, studyId: string): Promise<Line[]> {
  const pages = [
    ['runs', 'Runs'],
    ['machines/m-7', 'a dossier'],
    ['results/reliability', 'Reliability'],
    ['results/speed', 'Speed'],
    ['results/cost', 'Cost'],
  ] as const;
  const lines: Line[] = [];
  for (const [path, name] of pages) {
    const get = async () => (await fetch(`${base}/studies/${studyId}/${path}`)).text();
    await repeated(3, get);
    const times = await repeated(20, get);
    lines.push(line(`farm of 20 000 prints, ${name} (p95)`, p95(times), 500));
  }
  return lines;
}
