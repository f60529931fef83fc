import { beforeEach, describe, expect, it } from 'vitest';
import { createFleet } from '../support/fleet';
import { sharedServed } from '../support/served';

let base: string;

const { call, get, url } = sharedServed();

beforeEach(async () => {
  base = `/studies/${await createFleet(url(), 1)}`;
  const add = async (table: string, row: object) => {
    expect((await call('POST', `${base}/rows/${table}`, row)).status).toBe(201);
  };
  await add('zones', { artefact_id: 'clip', zone_id: 'face', name: 'Face', weight: 2 });
  const print = { print_id: 'p-1', contender_id: 'c-1', artefact_id: 'clip', material_id: 'pla' };
  await add('prints', { ...print, repeat: 1, outcome: 'success' });
  await add('specimens', { specimen_id: 's-1', print_id: 'p-1' });
});

const say = (findings: object[] | null, more: object = {}) =>
  call('POST', `${base}/inspections`, {
    specimen_id: 's-1',
    zone_id: 'face',
    inspector: 'LK',
    at: '2026-03-02T10:00:00Z',
    findings,
    ...more,
  });

const said = async (inspector = 'LK') => {
  const { inspections, findings } = await get<{
    inspections: unknown[];
    findings: { defect: string; grade: number; note: string | null; row_version: number }[];
  }>(`${base}/inspections?inspector=${inspector}`);
  return {
    looked: inspections.length,
    found: findings.map(({ defect, grade }) => `${defect} ${grade}`),
    versions: findings.map(({ row_version }) => row_version),
  };
};

describe('what an inspector says of a zone', () => {
  it('is kept whole, in place of what was said before', async () => {
    const two = [
      { defect: 'ringing', grade: 3 },
      { defect: 'seam', grade: 1, note: 'at the back' },
    ];
    expect((await say(two)).status).toBe(204);
    expect(await said()).toMatchObject({ looked: 1, found: ['ringing 3', 'seam 1'] });
    expect((await say([{ defect: 'ringing', grade: 2 }])).status).toBe(204);
    expect(await said()).toMatchObject({ looked: 1, found: ['ringing 2'] });
    expect((await say([])).status).toBe(204);
    expect(await said()).toMatchObject({ looked: 1, found: [] });
    expect((await say(null)).status).toBe(204);
    expect(await said()).toMatchObject({ looked: 0, found: [] });
  });

  it('sent again changes nothing', async () => {
    for (let times = 0; times < 3; times += 1) await say([{ defect: 'ringing', grade: 3 }]);
    expect(await said()).toEqual({ looked: 1, found: ['ringing 3'], versions: [1] });
    expect((await say(null)).status).toBe(204);
    expect((await say(null)).status).toBe(204);
  });

  it('keeps the first grade in the history of the row', async () => {
    await say([{ defect: 'ringing', grade: 3 }]);
    await say([{ defect: 'ringing', grade: 1 }]);
    const key = 'specimen_id=s-1&zone_id=face&inspector=LK&defect=ringing';
    const changes = await get<{ after: { grade: number } }[]>(
      `${base}/history?table=findings&${key}`,
    );
    expect(changes.map(({ after }) => after.grade)).toEqual([1, 3]);
  });

  it('is each inspector’s own', async () => {
    await say([{ defect: 'ringing', grade: 3 }]);
    await say([], { inspector: 'TS' });
    expect(await said('TS')).toMatchObject({ looked: 1, found: [] });
    expect(await said()).toMatchObject({ found: ['ringing 3'] });
    const anybody = await call('GET', `${base}/inspections`);
    expect(anybody.status).toBe(400);
  });

  it('of many at once on one zone ends as one of them', async () => {
    const grades = [0, 1, 2, 3, 4, 1, 2, 3];
    const answers = await Promise.all(grades.map((grade) => say([{ defect: 'ringing', grade }])));
    expect(answers.map(({ status }) => status)).toEqual(grades.map(() => 204));
    const { looked, found } = await said();
    expect(looked).toBe(1);
    expect(found).toHaveLength(1);
  });

  it.each([
    ['a zone that is none', [], { zone_id: 'back' }, 422],
    ['a specimen that is none', [], { specimen_id: 's-9' }, 404],
    ['a grade that is none', [{ defect: 'ringing', grade: 5 }], {}, 400],
    ['a defect that is none', [{ defect: 'beauty', grade: 1 }], {}, 400],
    ['nobody', [], { inspector: '' }, 400],
    [
      'a defect twice',
      [
        { defect: 'seam', grade: 1 },
        { defect: 'seam', grade: 2 },
      ],
      {},
      400,
    ],
  ])('of %s is refused and nothing is kept', async (_, findings, more, status) => {
    const answer = await say(findings, more);
    expect(answer.status, JSON.stringify(answer.content)).toBe(status);
    expect(await said()).toMatchObject({ looked: 0, found: [] });
  });

  it('makes the surface of the contender', async () => {
    await say([{ defect: 'ringing', grade: 2 }]);
    const { surface } = await get<{ surface: Record<string, { index: { estimate: number } }> }>(
      `${base}/results/surface`,
    );
    expect(surface['c-1']?.index.estimate).toBe(50);
  });
});
