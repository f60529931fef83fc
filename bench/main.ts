import { v7 as uuid } from 'uuid';
import { evaluate } from '../src/core/answers/results';
import { memorySource, readPackage, writePackage } from '../src/core/model/package';
import {
  insertReadings,
  migrate,
  openDatabase,
  storeStudy,
  transact,
  writeStudy,
  type Database,
} from '../src/data';
import { measurePhoto } from '../src/core/measures/image';
import { fillScorecard, type Card } from '../src/core/answers/scorecard';
import { PHOTO_MEASURES, type Study } from '../src/core/model/study';
import { zipped } from '../tests/support/zip';
import { farmStudy } from './farm';
import { median, p95, percentileOf, repeated, timed, type Line } from './line';
import { syntheticStudy } from './synthetic';
import { takeYardstick, type Say } from './yardstick';
import { analysisRate, plainReaderRate, syntheticSlicedFile } from './toolpath';

export { benchCommand } from './command';
export { benchFirstLook } from './first-look';
export { benchKills } from './kills';
export { benchPhotos } from './photos';
export { benchReport } from './report';

/** Calculations alone: no database, no pages. */
export async function benchCore(): Promise<Line[]> {
  const study = await syntheticStudy(2000, 100_000);
  const source = memorySource(packageFiles(study));
  const { line, say } = takeYardstick();
  // As a process that has just begun does it, and as one does that has done it before.
  const first = await timed(() => evaluate(study));
  await repeated(2, () => evaluate(study));
  return [
    line,
    say('evaluate 100 000 readings, 2 000 prints, the first time', first, null),
    say(
      'evaluate 100 000 readings, 2 000 prints',
      median(await repeated(5, () => evaluate(study))),
      400,
    ),
    say('read and check that package', median(await repeated(3, () => readPackage(source))), null),
    say('write that package', median(await repeated(3, () => writePackage(study))), null),
    say('scorecard: 20 000 draws, 12 criteria, 8 contenders', await scorecardTime(), 300),
    ...photoMeasures(say),
  ];
}

const packageFiles = (study: Study): Map<string, Uint8Array> => {
  const encoder = new TextEncoder();
  return new Map([...writePackage(study)].map(([path, text]) => [path, encoder.encode(text)]));
};

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
  const points = [
    [30, 0],
    [55, 0.7],
    [80, 1],
  ] as const;
  const card: Card = {
    criteria: keys.map((key, at) => ({ key, weight: at + 1, points })),
    gates: [],
    draws: 20_000,
    concentration: 50,
  };
  return median(await repeated(5, () => fillScorecard(card, evidence, contenders, 1)));
}

/** Each of the five measures on a region of 1500 × 1000 px. */
function photoMeasures(say: Say): Line[] {
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
    return say(`photo measure, ${measure}, 1500 × 1000 px`, median(times), 150);
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

const store = (db: Database, studyId: string, study: Study): Promise<unknown> =>
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
  const { line, say } = takeYardstick();
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
    line,
    say('store a study of 100 000 readings', stored, null),
    say('keep one reading (p95), in the database', p95(times), 30),
  ];
}

/** The same over HTTP, and the results page. */
export async function benchServer(base: string, studyId: string): Promise<Line[]> {
  const { line, say } = takeYardstick();
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
  const fresh = median(await repeated(9, freshAfter('pairs')));
  const criteria = median(await repeated(9, freshAfter('criteria')));
  const readAndShow = async () => {
    await post(1);
    await get(page);
  };
  const freshPage = median(await repeated(9, readAndShow));
  const crowd = await crowded(READERS, [page, glance], get, () => post(1));
  const zip = zipped(packageFiles(await syntheticStudy(2000, 100_000)));
  const imported = await repeated(3, async () => {
    const answer = await fetch(`${base}/api/v1/imports`, {
      method: 'PUT',
      headers: { 'content-type': 'application/zip' },
      body: Buffer.from(zip),
    });
    if (answer.status !== 201) throw new Error(`the import answered ${answer.status}`);
  });
  return [
    line,
    say('results page, 30 000 readings, the first time', first, null),
    say('results page, cached (median)', median(cached), null),
    say('results page, cached (p95)', p95(cached), 100),
    say('save one reading over HTTP (p95)', p95(posts), 30),
    say('at a glance, cached (p95)', p95(glances), 100),
    say('a results page right after a reading', freshPage, 300),
    say('fresh verdicts after a reading', fresh, 300),
    say('everything that a card weighs, fresh after a reading', criteria, 1000),
    say(`${READERS} readers at once, while somebody measures (p99)`, crowd.reading, 3000),
    say('a reading kept among them (p95)', crowd.writing, 300),
    say('import of a package of 100 000 readings, over HTTP', median(imported), 4000),
  ];
}

const READERS = 200;
const ROUNDS = 3;

/** How long readers wait who all ask at once, and whoever writes among them, ms: p99 and p95. */
async function crowded(
  readers: number,
  pages: readonly string[],
  read: (page: string) => Promise<unknown>,
  write: () => Promise<unknown>,
): Promise<{ reading: number; writing: number }> {
  const readings: number[] = [];
  const writings: number[] = [];
  for (let round = 0; round < ROUNDS; round += 1) {
    let isReading = true;
    const all = Promise.all(
      Array.from({ length: readers }, async (_, at) => {
        readings.push(await timed(() => read(pages[at % pages.length] ?? '')));
      }),
    ).then(() => (isReading = false));
    while (isReading) writings.push(await timed(write));
    await all;
  }
  return { reading: percentileOf(readings, 0.99), writing: p95(writings) };
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
  const { line, say } = takeYardstick();
  const pages = [
    ['runs', 'Runs'],
    ['machines/m-7', 'a dossier'],
    ['results/reliability', 'Reliability'],
    ['results/speed', 'Speed'],
    ['results/cost', 'Cost'],
  ] as const;
  const lines: Line[] = [line];
  for (const [path, name] of pages) {
    const get = async () => (await fetch(`${base}/studies/${studyId}/${path}`)).text();
    await repeated(3, get);
    const times = await repeated(20, get);
    lines.push(say(`farm of 20 000 prints, ${name} (p95)`, p95(times), 300));
  }
  return lines;
}
