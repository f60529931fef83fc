import { beforeAll, expect, it } from 'vitest';
import { createFleet } from '../support/fleet';
import { sharedServed } from '../support/served';

const { call, get, url } = sharedServed();

let base: string;
beforeAll(async () => {
  base = `/studies/${await createFleet(url(), 1)}`;
  await call('POST', `${base}/rows/prints`, {
    print_id: 'P-1',
    contender_id: 'c-1',
    artefact_id: 'clip',
    material_id: 'pla',
    repeat: 1,
    order: 1,
    outcome: 'success',
  });
  await call('POST', `${base}/rows/specimens`, { specimen_id: 'S-1', print_id: 'P-1', copy: 1 });
});

const work = (more: object) =>
  call('POST', `${base}/aftercare`, {
    specimen_id: 'S-1',
    kind: 'support',
    minutes: 2,
    damage: null,
    operator: 'KM',
    note: null,
    ...more,
  });

const rows = () =>
  get<{ kind: string; minutes: number; operator: string | null }[]>(`${base}/rows/aftercare`);

it('what hands did is kept once for each kind and hands, the last word counts', async () => {
  expect((await work({})).status).toBe(200);
  expect((await work({ minutes: 3.5, damage: 1 })).status).toBe(200);
  await work({ kind: 'brim', minutes: 0.4 });
  await work({ operator: 'TS', minutes: 4 });
  await work({ operator: null, minutes: 1 });
  await work({ operator: null, minutes: 1.5 });
  expect((await rows()).map(({ kind, minutes, operator }) => [kind, minutes, operator])).toEqual([
    ['support', 3.5, 'KM'],
    ['brim', 0.4, 'KM'],
    ['support', 4, 'TS'],
    ['support', 1.5, null],
  ]);
});

it('minutes are summed over a specimen in the results', async () => {
  type Part = { aftercare: Record<string, Record<string, { minutes: { estimate: number } }>> };
  const minutes = async () =>
    (await get<Part>(`${base}/results/aftercare`)).aftercare['c-1']?.clip?.minutes.estimate;
  // 3.5 + 0.4 + 4 + 1.5.
  await expect.poll(minutes, { timeout: 20_000 }).toBeCloseTo(9.4, 9);
});

it.each([
  ['an unknown specimen', { specimen_id: 'S-9' }, 404],
  ['less than no time', { minutes: -1 }, 400],
  ['a kind that is none', { kind: 'painting' }, 400],
  ['a damage over the grades', { damage: 5 }, 400],
])('%s is refused, and nothing is kept', async (_, more, status) => {
  const before = await rows();
  expect((await work(more)).status).toBe(status);
  expect(await rows()).toEqual(before);
});
