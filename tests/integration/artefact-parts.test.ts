import { describe, expect, it } from 'vitest';
import { createFleet } from '../support/fleet';
import { sharedServed } from '../support/served';

const { call, get, url } = sharedServed();

/** A study with an artefact `clip`, and what is added to it. */
async function bench() {
  const study = `/studies/${await createFleet(url(), 1)}`;
  const add = (kind: 'dimensions' | 'zones', content: object) =>
    call('POST', `${study}/artefacts/clip/${kind}`, content);
  const rows = (table: string) => get<Record<string, unknown>[]>(`${study}/rows/${table}`);
  const revision = async () => (await get<{ revision: string }>(study)).revision;
  return { study, add, rows, revision };
}

const dimension = (name: string, more = {}) => ({
  dimension: { name, axis: 'x', kind: 'external', nominal_mm: 20, ...more },
  place: { x1_mm: 0, y1_mm: 5, z1_mm: 2, x2_mm: 20, y2_mm: 5, z2_mm: 2 },
});
const zone = (name: string, more = {}) => ({
  zone: { name, weight: 1 },
  place: { side: 'front', u1_mm: 0, v1_mm: 0, u2_mm: 20, v2_mm: 10, ...more },
});

describe('a dimension that is set on a part', () => {
  it('is kept with its place, in one revision, under an id made of its name', async () => {
    const own = await bench();
    const before = Number(await own.revision());
    const { status, content } = await own.add('dimensions', dimension('Löffel, groß'));
    expect(status).toBe(201);
    const key = { artefact_id: 'clip', dimension_id: 'loffel-gross' };
    expect(content).toMatchObject({
      dimension: { ...key, nominal_mm: 20 },
      place: { ...key, x2_mm: 20 },
    });
    expect(await own.rows('dimensions')).toMatchObject([key]);
    expect(await own.rows('dimension_places')).toMatchObject([key]);
    expect(Number(await own.revision())).toBe(before + 1);
  });

  it('has an id of its own where several of one name come at once', async () => {
    const own = await bench();
    const answers = await Promise.all(
      Array.from({ length: 6 }, () => own.add('dimensions', dimension('width'))),
    );
    expect(answers.map(({ status }) => status)).toEqual(Array(6).fill(201));
    const ids = (await own.rows('dimension_places')).map((row) => row.dimension_id);
    expect(ids.toSorted()).toEqual([
      'width',
      'width-2',
      'width-3',
      'width-4',
      'width-5',
      'width-6',
    ]);
  });

  it('has not the id of one that is retired', async () => {
    const own = await bench();
    await own.add('dimensions', dimension('width'));
    const retired = { artefact_id: 'clip', dimension_id: 'width' };
    expect((await call('POST', `${own.study}/rows/retired_dimensions`, retired)).status).toBe(201);
    const { content } = await own.add('dimensions', dimension('width'));
    expect(content.dimension).toMatchObject({ dimension_id: 'width-2' });
  });

  it('is not kept where anything of it is wrong: neither it nor its place', async () => {
    const own = await bench();
    const wrong = [
      dimension('width', { lower_tol_mm: 0.2, upper_tol_mm: 0.1 }),
      dimension('width', { nominal_mm: -1 }),
      { ...dimension('width'), place: { x1_mm: 0 } },
      {
        ...dimension('width'),
        dimension: { ...dimension('width').dimension, dimension_id: 'mine' },
      },
    ];
    for (const one of wrong) {
      expect((await own.add('dimensions', one)).status).toBeGreaterThanOrEqual(400);
    }
    expect(await own.rows('dimensions')).toEqual([]);
    expect(await own.rows('dimension_places')).toEqual([]);
    const nowhere = await call(
      'POST',
      `${own.study}/artefacts/none/dimensions`,
      dimension('width'),
    );
    expect(nowhere.status).toBe(422);
  });
});

describe('a zone that is drawn on a part', () => {
  it('is kept with its place, or not at all', async () => {
    const own = await bench();
    const kept = await own.add('zones', zone('Front face'));
    expect(kept.content).toMatchObject({
      zone: { zone_id: 'front-face', weight: 1 },
      place: { zone_id: 'front-face', side: 'front' },
    });
    expect((await own.add('zones', zone('Front face'))).content.zone).toMatchObject({
      zone_id: 'front-face-2',
    });
    expect((await own.add('zones', zone('Back face', { side: 'inside' }))).status).toBe(400);
    expect(await own.rows('zones')).toHaveLength(2);
    expect(await own.rows('zone_places')).toHaveLength(2);
  });
});

describe('an artefact', () => {
  it('gets an id made of its name where it brings none, however many come at once', async () => {
    const { study, rows } = await bench();
    const parts = [
      {
        artefact_id: 'whatever',
        dimension_id: 'x1',
        name: 'x1',
        axis: 'x',
        kind: 'external',
        nominal_mm: 20,
      },
    ];
    const answers = await Promise.all(
      Array.from({ length: 4 }, () =>
        call('POST', `${study}/artefacts`, { artefact: { name: 'Clip' }, dimensions: parts }),
      ),
    );
    const ids = answers.map(({ content }) => content.artefact_id);
    expect(ids.toSorted()).toEqual(['clip-2', 'clip-3', 'clip-4', 'clip-5']);
    expect(new Set((await rows('dimensions')).map((row) => row.artefact_id))).toEqual(new Set(ids));
    // Who names one means that one.
    const taken = await call('POST', `${study}/artefacts`, {
      artefact: { artefact_id: 'clip', name: 'Another' },
    });
    expect(taken.status).toBe(409);
  });
});
