import { QueryTypes } from 'sequelize';
import { v7 as uuid } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { PartName } from '../../src/core/answers/results';
import {
  codedSpecimens,
  findResults,
  listTables,
  placedSpecimens,
  type Database,
} from '../../src/data';
import { apiOf } from '../support/api';
import { freshDatabase } from '../support/database';
import { DEMO_PAIR } from '../support/demo-files';
import { resultsAreKept } from '../support/kept-results';
import { kill, startServer, type Server } from '../support/server';

let server: Server;
let db: Database;
let drop: () => Promise<void>;
let study: string;

beforeAll(async () => {
  const fresh = await freshDatabase(DEMO_PAIR);
  ({ db, drop } = fresh);
  server = await startServer(fresh.url, { studies: DEMO_PAIR });
  const studies = await get<{ study_id: string; name: string }[]>('/studies');
  study = studies.find(({ name }) => name === 'clip-bench')?.study_id ?? '';
});
afterAll(async () => {
  await kill(server.child);
  await drop();
});

const { call, get } = apiOf(() => server.url);

interface Part {
  stale: string[];
  revision: string;
}

/** A part of the results, once it is as the study stands. */
async function fresh<Content>(part: string, reference?: string): Promise<Part & Content> {
  let found: (Part & Content) | undefined;
  await expect
    .poll(
      async () => {
        const asked = reference === undefined ? '' : `?ref=${reference}`;
        found = await get<Part & Content>(`/studies/${study}/results/${part}${asked}`);
        return found.stale;
      },
      { timeout: 60_000 },
    )
    .toEqual([]);
  return found as Part & Content;
}

interface Kept {
  part: string;
  revision: number;
  reference: string | null;
}

const kept = async (): Promise<Kept[]> => {
  const [rows] = (await db.sequelize.query(
    `select section as part, revision::int as revision, parameters::json ->> 'reference' as reference
     from results where study_id = $1 order by section, reference`,
    { bind: [study] },
  )) as unknown as [Kept[]];
  return rows;
};

const keptOf = async (part: PartName) => {
  await resultsAreKept(db, study, [part]);
  return (await kept()).filter((one) => one.part === part);
};

interface Accuracy {
  accuracy: Record<string, { mae_mm: { estimate: number } }>;
}

const maeOf = async (contender: string) =>
  (await fresh<Accuracy>('accuracy')).accuracy[contender]?.mae_mm.estimate ?? Number.NaN;

describe('results that are kept', () => {
  it('are made once and then read, until something that they hang on has changed', async () => {
    const before = await maeOf('D-stock');
    const reference = await maeOf('A-stock');
    const [first] = await keptOf('accuracy');
    await maeOf('D-stock');
    expect(await keptOf('accuracy')).toEqual([first]);
    const readings = await get<
      { specimen_id: string; dimension_id: string; value_mm: number; reading_id: string }[]
    >(`/studies/${study}/readings`);
    const specimens = await get<{ specimen_id: string; print_id: string }[]>(
      `/studies/${study}/rows/specimens`,
    );
    const prints = await get<{ print_id: string; contender_id: string }[]>(
      `/studies/${study}/rows/prints`,
    );
    const ofReference = new Set(
      prints.filter((row) => row.contender_id === 'A-stock').map((row) => row.print_id),
    );
    const parts = new Set(
      specimens.filter((row) => ofReference.has(row.print_id)).map((row) => row.specimen_id),
    );
    const known = readings.find((row) => parts.has(row.specimen_id));
    const reading = await call('POST', `/studies/${study}/readings`, {
      reading_id: uuid(),
      specimen_id: known?.specimen_id,
      dimension_id: known?.dimension_id,
      trial: 90,
      value_mm: (known?.value_mm ?? 0) + 1,
      instrument_id: null,
      operator: 'T',
      at: '2026-03-20T10:00:00Z',
    });
    expect(reading.status).toBe(201);
    await fresh('accuracy');
    const [second] = await keptOf('accuracy');
    expect(second?.revision).toBeGreaterThan(first?.revision ?? Infinity);
    // The reading was of another contender: this one's figure is made anew, and the same.
    expect(await maeOf('D-stock')).toBe(before);
    expect(await maeOf('A-stock')).not.toBe(reference);
  });

  it('of sections that hang on another table stay as they are', async () => {
    await fresh('noise');
    await fresh('reliability');
    const [noise] = await keptOf('noise');
    const [reliability] = await keptOf('reliability');
    const incident = {
      incident_id: uuid(),
      machine_id: 'gannet',
      mode: 'clogged',
      cause: 'machine',
    };
    expect((await call('POST', `/studies/${study}/rows/incidents`, incident)).status).toBe(201);
    await fresh('noise');
    await fresh('reliability');
    expect((await keptOf('noise'))[0]).toEqual(noise);
    expect((await keptOf('reliability'))[0]?.revision).toBeGreaterThan(
      reliability?.revision ?? Infinity,
    );
  });

  it('that hang on the reference are kept for each, those that do not once', async () => {
    for (const reference of ['A-stock', 'B-stock', 'C-stock']) {
      await fresh('pairs', reference);
      await fresh('waste', reference);
    }
    await expect
      .poll(async () => (await keptOf('pairs')).map((one) => one.reference), { timeout: 30_000 })
      .toEqual(['A-stock', 'B-stock', 'C-stock']);
    expect(await keptOf('waste')).toHaveLength(1);
  });

  it('of another reference are against it', async () => {
    const pairs = async (reference: string) => {
      const { pairs: found } = await fresh<{
        pairs: { accuracy_mm: { contender: string; difference: { estimate: number } }[] };
      }>('pairs', reference);
      return new Map(
        found.accuracy_mm.map((row) => [row.contender, row.difference.estimate] as const),
      );
    };
    const [a, b] = [await pairs('A-stock'), await pairs('B-stock')];
    expect(a.has('A-stock')).toBe(false);
    // B against A is the contrary of A against B, to the last digit that counts.
    expect(a.get('B-stock')).toBeCloseTo(-(b.get('A-stock') ?? Number.NaN), 12);
  });

  it('asked for by many at once are made once', async () => {
    const planted = { incident_id: uuid(), machine_id: 'auklet', mode: 'warped', cause: 'machine' };
    await call('POST', `/studies/${study}/rows/incidents`, planted);
    const all = await Promise.all(
      Array.from({ length: 12 }, () => get<Part>(`/studies/${study}/results/modes`)),
    );
    expect(all).toHaveLength(12);
    await fresh('modes');
    expect(await keptOf('modes')).toHaveLength(1);
  });

  it('are answered before they are kept, and known from then on', async () => {
    const note = { incident_id: uuid(), machine_id: 'gannet', mode: 'warped', cause: 'machine' };
    await fresh('modes');
    const [before] = await keptOf('modes');
    const held = await db.sequelize.transaction();
    try {
      await db.sequelize.query('lock table results in exclusive mode', { transaction: held });
      await call('POST', `/studies/${study}/rows/incidents`, note);
      const made = await fresh<{ modes: object }>('modes');
      // Whoever made it once more would wait for what is locked now.
      await db.sequelize.query('lock table incidents in access exclusive mode', {
        transaction: held,
      });
      const again = await fresh<{ modes: object }>('modes');
      expect(again.modes).toEqual(made.modes);
      expect((await kept()).filter((one) => one.part === 'modes')).toEqual([before]);
    } finally {
      await held.rollback();
    }
    const [after] = await keptOf('modes');
    expect(after?.revision).toBeGreaterThan(before?.revision ?? Infinity);
  });

  it('are the older ones, marked as such, where newer ones take long', async () => {
    const before = await fresh<Accuracy>('accuracy');
    await resultsAreKept(db, study, ['accuracy']);
    const [known] = await get<{ specimen_id: string; dimension_id: string; value_mm: number }[]>(
      `/studies/${study}/readings`,
    );
    const held = await db.sequelize.transaction();
    try {
      const { status } = await call('POST', `/studies/${study}/readings`, {
        reading_id: uuid(),
        trial: 91,
        value_mm: (known?.value_mm ?? 0) + 2,
        specimen_id: known?.specimen_id,
        dimension_id: known?.dimension_id,
        instrument_id: null,
        operator: 'T',
        at: '2026-03-20T11:00:00Z',
      });
      expect(status).toBe(201);
      // Nothing newer can be made now.
      await db.sequelize.query('lock table readings in access exclusive mode', {
        transaction: held,
      });
      const older = await get<Part & Accuracy>(`/studies/${study}/results/accuracy`);
      expect(older.stale).toEqual(['accuracy']);
      expect(older.accuracy).toEqual(before.accuracy);
      expect(Number(older.revision)).toBeLessThanOrEqual(Number(before.revision));
    } finally {
      await held.rollback();
    }
    const after = await fresh<Accuracy>('accuracy');
    expect(after.accuracy).not.toEqual(before.accuracy);
    expect(Number(after.revision)).toBeGreaterThan(Number(before.revision));
  });

  it('older than is wanted are told of without their values', async () => {
    await fresh('accuracy');
    await resultsAreKept(db, study, ['accuracy']);
    const [row] = await db.sequelize.query<{ parameters: string; revision: number }>(
      `select parameters, revision::int as revision from results
       where study_id = $1 and section = 'accuracy' order by revision desc limit 1`,
      { bind: [study], type: QueryTypes.SELECT },
    );
    const { parameters, revision } = row ?? { parameters: '', revision: 0 };
    const found = async (least: number | null) =>
      (await findResults(db, study, [{ part: 'accuracy', parameters, least }]))[0];
    expect((await found(revision))?.value).toHaveProperty('A-stock');
    expect((await found(null))?.value).toHaveProperty('A-stock');
    expect(await found(revision + 1)).toMatchObject({ revision, value: null });
  });

  it('on a page are as the study compares where the address names no contender of it', async () => {
    const page = (path: string) => fetch(`${server.url}/studies/${path}`);
    const [plain, asked] = await Promise.all([
      page(`${study}/results/accuracy`),
      page(`${study}/results/accuracy?ref=nobody`),
    ]);
    expect([plain.status, asked.status]).toEqual([200, 200]);
    expect(await asked.text()).toContain('Mean absolute deviation from nominal');
    for (const none of [uuid(), 'nonsense'])
      for (const view of ['', '?ref=A-stock'])
        expect((await page(`${none}/results/accuracy${view}`)).status).toBe(404);
  });

  it('of a reference that is no contender are refused', async () => {
    const answer = await call('GET', `/studies/${study}/results/pairs?ref=nobody`);
    expect(answer.status).toBe(404);
  });

  it('of a part that there is not are refused with its name', async () => {
    const answer = await call('GET', `/studies/${study}/results/beauty`);
    expect(answer.status).toBe(400);
  });
});

describe('specimens that a page of results names', () => {
  it('are those with a sticker, and those of an artefact whose places are known', async () => {
    const { specimens, prints } = await listTables(db, study, ['specimens', 'prints']);
    expect(specimens.length).toBeGreaterThan(0);
    const coded = specimens.filter((row) => row.code !== null);
    expect(await codedSpecimens(db, study)).toEqual(
      coded.map(({ specimen_id, code }) => ({ specimen_id, code })),
    );
    const artefactOf = new Map(prints.map((row) => [row.print_id, row.artefact_id]));
    const placed = specimens.filter((row) => row.plate_x_mm !== null && row.plate_y_mm !== null);
    const artefacts = new Set(placed.map((row) => artefactOf.get(row.print_id) ?? ''));
    expect(artefacts.size).toBeGreaterThan(0);
    for (const artefact of [...artefacts, 'none']) {
      const found = await placedSpecimens(db, study, artefact);
      const expected = placed.filter((row) => artefactOf.get(row.print_id) === artefact);
      expect(new Map(found.map((row) => [row.specimen_id, row]))).toEqual(
        new Map(
          expected.map(({ specimen_id, code, plate_x_mm, plate_y_mm }) => [
            specimen_id,
            { specimen_id, code, plate_x_mm, plate_y_mm },
          ]),
        ),
      );
    }
  });
});

describe('the evidence of a figure', () => {
  const evidence = (figure: string, more = '') =>
    call('GET', `/studies/${study}/evidence?figure=${encodeURIComponent(figure)}${more}`);

  it('is of the study as the figure was seen; a newer one is told', async () => {
    const { revision } = await fresh<Accuracy>('accuracy');
    const seen = await evidence('accuracy:B-stock:mae_mm', `&revision=${revision}`);
    expect(seen.status).toBe(200);
    expect(seen.content).toMatchObject({ title: expect.stringContaining('Gannet X24 stock') });
  });

  it.each([
    '',
    'accuracy:nobody:mae_mm',
    'beauty:B-stock:mae_mm',
    'accuracy:B-stock:nothing',
    'accuracy/B-stock',
  ])('of “%s” there is none', async (figure) => {
    expect((await evidence(figure)).status).toBe(404);
  });

  it('of a revision that is none is refused', async () => {
    expect((await evidence('accuracy:B-stock:mae_mm', '&revision=soon')).status).toBe(400);
  });
});
