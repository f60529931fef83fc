import { v7 as uuid } from 'uuid';
import { describe, expect, it } from 'vitest';
import { createFleet } from '../support/fleet';
import { sharedServed } from '../support/served';

const { call, get, url } = sharedServed();

/** A study with the API of its rows. */
async function bench(machines = 2) {
  const study = await createFleet(url(), machines);
  const base = `/studies/${study}`;
  const add = (table: string, row: object) => call('POST', `${base}/rows/${table}`, row);
  const must = async (table: string, row: object) => {
    const answer = await add(table, row);
    expect(answer, JSON.stringify(answer.content)).toMatchObject({ status: 201 });
    return answer.content as { row_version: number };
  };
  const change = (path: string, version: number, content: object) =>
    call('PATCH', `${base}/rows/${path}`, { version, change: content });
  const remove = (path: string, version: number) =>
    call('DELETE', `${base}/rows/${path}`, { version });
  const rows = (table: string) => get<Record<string, unknown>[]>(`${base}/rows/${table}`);
  return { study, base, add, must, change, remove, rows };
}

const DIMENSION = {
  artefact_id: 'clip',
  dimension_id: 'x1',
  name: 'x1',
  axis: 'x',
  kind: 'external',
  nominal_mm: 20,
};
const PLACE = {
  artefact_id: 'clip',
  dimension_id: 'x1',
  x1_mm: 0,
  y1_mm: 0,
  z1_mm: 0,
  x2_mm: 20,
  y2_mm: 0,
  z2_mm: 0,
};

/** A dimension with its place, a print with a specimen of it. */
async function measured(own: Awaited<ReturnType<typeof bench>>) {
  const dimension = await own.must('dimensions', DIMENSION);
  await own.must('dimension_places', PLACE);
  const print = {
    print_id: 'p-1',
    contender_id: 'c-1',
    artefact_id: 'clip',
    material_id: 'pla',
    repeat: 1,
    outcome: 'success',
  };
  await own.must('prints', print);
  await own.must('specimens', { specimen_id: 's-1', print_id: 'p-1', code: 'K-001' });
  return dimension;
}

const reading = (value_mm: number, more = {}) => ({
  reading_id: uuid(),
  specimen_id: 's-1',
  dimension_id: 'x1',
  trial: 1,
  value_mm,
  instrument_id: null,
  operator: 'LK',
  at: '2026-03-02T10:00:00Z',
  ...more,
});

describe('a row that is written', () => {
  it('names only rows that are there, and the answer says which it does not', async () => {
    const own = await bench();
    const answer = await own.add('contenders', {
      contender_id: 'c-9',
      label: 'Nine',
      machine_id: 'm-9',
      profile_id: 'p-9',
    });
    expect(answer.status).toBe(422);
    expect((answer.content.issues as { path: string }[]).map(({ path }) => path)).toEqual([
      'machine_id',
      'profile_id',
    ]);
    expect(await own.rows('contenders')).toHaveLength(2);
  });

  it('keeps the rules between its cells, on entry and on change', async () => {
    const own = await bench();
    const tight = { ...DIMENSION, lower_tol_mm: 0.3, upper_tol_mm: 0.1 };
    expect((await own.add('dimensions', tight)).content.detail).toContain('lower_tol_mm');
    const { row_version } = await own.must('dimensions', {
      ...DIMENSION,
      lower_tol_mm: -0.1,
      upper_tol_mm: 0.1,
    });
    const changed = await own.change('dimensions/clip/x1', row_version, { lower_tol_mm: 0.2 });
    expect(changed.status).toBe(422);
    expect((await own.rows('dimensions'))[0]).toMatchObject({ lower_tol_mm: -0.1 });
  });

  it('has no column that the table does not have', async () => {
    const own = await bench();
    const answer = await own.add('materials', { material_id: 'x', type: 'PLA', smell: 'none' });
    expect(answer.status).toBe(400);
    expect(JSON.stringify(answer.content)).toContain('smell');
  });

  it('of an id that is taken is refused unless it says the same', async () => {
    const own = await bench();
    const row = { material_id: 'petg', type: 'PETG', lot: '7' };
    await own.must('materials', row);
    expect((await own.add('materials', row)).status).toBeLessThan(300);
    expect((await own.add('materials', { ...row, lot: '8' })).status).toBe(409);
    expect((await own.rows('materials')).filter((one) => one.material_id === 'petg')).toHaveLength(
      1,
    );
  });

  it('an incident happens on the machine of its print', async () => {
    const own = await bench();
    await measured(own);
    const incident = { incident_id: 'i-1', print_id: 'p-1', mode: 'clogged', cause: 'machine' };
    const elsewhere = await own.add('incidents', { ...incident, machine_id: 'm-2' });
    expect(elsewhere.content.detail).toContain('is not the machine of this print (m-1)');
    const nowhere = await own.add('incidents', {
      ...incident,
      print_id: 'p-9',
      machine_id: 'm-1',
    });
    expect(nowhere.status).toBe(422);
    await own.must('incidents', { ...incident, machine_id: 'm-1' });
  });

  it('the first contender of a study is its reference', async () => {
    const own = await bench();
    const about = await get<{ reference: string }>(own.base);
    expect(about.reference).toBe('c-1');
  });
});

describe('a change of a row', () => {
  it('is made from the version that was seen, or not at all', async () => {
    const own = await bench();
    const first = await own.change('machines/m-1', 1, { firmware: '1.2' });
    expect(first.content).toMatchObject({ firmware: '1.2', row_version: 2, name: 'Machine 1' });
    const late = await own.change('machines/m-1', 1, { firmware: '9.9' });
    expect(late.status).toBe(409);
    expect(late.content).toMatchObject({ current: { firmware: '1.2', row_version: 2 } });
  });

  it('leaves its key alone', async () => {
    const own = await bench();
    const renamed = await own.change('machines/m-1', 1, { machine_id: 'm-7' });
    expect(renamed.content.detail).toBe('machine_id names the row and cannot be changed.');
    expect((await own.change('machines/m-1', 1, { machine_id: 'm-1' })).status).toBe(200);
  });

  it('is in the history of the row, with who made it, the latest first', async () => {
    const own = await bench();
    const path = `${own.base}/rows/machines/m-1`;
    const change = (version: number, firmware: string, who: string) =>
      call('PATCH', path, { version, change: { firmware } }, { 'x-operator': who });
    await change(1, '1.1', 'LK');
    await change(2, '1.2', encodeURIComponent('Åsa'));
    const changes = await get<{ who: string | null; after: Record<string, unknown> | null }[]>(
      `${own.base}/history?table=machines&machine_id=m-1`,
    );
    expect(changes.map(({ who, after }) => [who, after?.firmware])).toEqual([
      ['Åsa', '1.2'],
      ['LK', '1.1'],
      [null, null],
    ]);
  });
});

describe('taking a row out', () => {
  it('is refused as long as others name it, and says which', async () => {
    const own = await bench();
    const named = await own.remove('machines/m-1', 1);
    expect(named.status).toBe(422);
    expect(named.content.detail).toBe(
      '1 of the contenders still names this: take out what names it first.',
    );
    await own.must('machines', { machine_id: 'm-9', name: 'Spare' });
    expect((await own.remove('machines/m-9', 1)).status).toBe(204);
    expect((await own.remove('machines/m-9', 1)).status).toBe(404);
  });

  it('is refused for the reference of the study, whoever still names it', async () => {
    const own = await bench();
    for (const contender of ['c-1', 'c-2']) {
      expect((await own.remove(`planned/${contender}/clip/pla`, 1)).status).toBe(204);
    }
    const kept = await own.remove('contenders/c-1', 1);
    expect(kept.content.detail).toBe(
      'It is the reference of this study: choose another one first.',
    );
    expect((await own.remove('contenders/c-2', 1)).status).toBe(204);
  });

  it('of an older version is refused', async () => {
    const own = await bench();
    await own.must('machines', { machine_id: 'm-9', name: 'Spare' });
    await own.change('machines/m-9', 1, { name: 'Not so spare' });
    expect((await own.remove('machines/m-9', 1)).status).toBe(409);
    expect(await own.rows('machines')).toHaveLength(3);
  });

  it('takes along what only says something of it: the place of a dimension', async () => {
    const own = await bench();
    const { row_version } = await own.must('dimensions', DIMENSION);
    await own.must('dimension_places', PLACE);
    expect((await own.remove('dimensions/clip/x1', row_version)).status).toBe(204);
    expect(await own.rows('dimension_places')).toEqual([]);
  });

  it('of a dimension that was measured retires it: its readings stay', async () => {
    const own = await bench();
    const { row_version } = await measured(own);
    const sent = await call('POST', `${own.base}/readings`, reading(20.1));
    expect(sent.status).toBe(201);
    const retired = await own.remove('dimensions/clip/x1', row_version);
    expect(retired).toMatchObject({ status: 200, content: { is_retired: true } });
    expect(await own.rows('dimensions')).toHaveLength(1);
    expect(await own.rows('retired_dimensions')).toHaveLength(1);
    expect(await get<unknown[]>(`${own.base}/readings`)).toHaveLength(1);
    const again = await own.remove('dimensions/clip/x1', row_version);
    expect(again.content.detail).toBe('It is retired already, because it has readings.');
  });

  it('of one that could not be measured retires it too', async () => {
    const own = await bench();
    const { row_version } = await measured(own);
    await own.must('unmeasured', { specimen_id: 's-1', dimension_id: 'x1', reason: 'hidden' });
    expect((await own.remove('dimensions/clip/x1', row_version)).content).toEqual({
      is_retired: true,
    });
  });
});

describe('readings', () => {
  it('sent again with the same id are kept once, with another id twice', async () => {
    const own = await bench();
    await measured(own);
    const one = reading(20.1);
    expect((await call('POST', `${own.base}/readings`, one)).status).toBe(201);
    expect((await call('POST', `${own.base}/readings`, one)).status).toBe(201);
    await call('POST', `${own.base}/readings`, reading(20.2, { trial: 2 }));
    const kept = await get<{ value_mm: number; trial: number }[]>(`${own.base}/readings`);
    expect(kept.map(({ value_mm, trial }) => [value_mm, trial])).toEqual([
      [20.1, 1],
      [20.2, 2],
    ]);
  });

  it('of many are kept all or none', async () => {
    const own = await bench();
    await measured(own);
    const batch = (readings: object[]) => call('POST', `${own.base}/readings/batch`, { readings });
    const bad = await batch([reading(20), reading(20, { dimension_id: 'nowhere' })]);
    expect(bad.status).toBe(422);
    expect(bad.content.detail).toContain('nowhere');
    expect(await get<unknown[]>(`${own.base}/readings`)).toEqual([]);
    expect((await batch([reading(20), reading(20.1, { trial: 2 })])).content).toEqual({ kept: 2 });
  });

  it('that are taken back are kept, and do not count', async () => {
    const own = await bench();
    await measured(own);
    const one = reading(20.1);
    await call('POST', `${own.base}/readings`, one);
    const path = `${own.base}/readings/${one.reading_id}`;
    const taken = await call('DELETE', path, { at: '2026-03-02T11:00:00Z' });
    expect(taken.content).toMatchObject({ superseded_at: '2026-03-02T11:00:00Z', value_mm: 20.1 });
    expect(await get<unknown[]>(`${own.base}/readings`)).toEqual([]);
    const { readings } = await get<{ readings: unknown[] }>(
      `${own.base}/specimens/s-1/measurements`,
    );
    expect(readings).toEqual([]);
  });

  it('have an address of their own, and are never changed as rows', async () => {
    const own = await bench();
    const answer = await own.add('readings', reading(20));
    expect(answer.status).toBe(400);
    expect(answer.content.detail).toContain('/readings');
  });
});

describe('what a sticker’s code stands for', () => {
  it('a specimen, a print, a place of the plan, whatever the case', async () => {
    const own = await bench();
    await measured(own);
    const find = async (code: string) =>
      (await call('GET', `${own.base}/find?code=${encodeURIComponent(code)}`)).content;
    expect(await find('k-001')).toMatchObject({ kind: 'specimen' });
    expect(await find('s-1')).toMatchObject({ kind: 'specimen' });
    expect(await find('p-1')).toMatchObject({ kind: 'print' });
    expect(await find('C-2/CLIP/2')).toMatchObject({ kind: 'place' });
  });

  it.each(['c-2/clip/3', 'c-2/clip/0', 'c-2/clip/1.5', 'c-2/clip/', 'nothing'])(
    '%s stands for nothing',
    async (code) => {
      const own = await bench();
      const answer = await call('GET', `${own.base}/find?code=${encodeURIComponent(code)}`);
      expect(answer.status).toBe(404);
    },
  );
});

describe('what a study is about', () => {
  it('is changed from the version that was seen; its reference is a contender', async () => {
    const own = await bench();
    const { row_version } = await get<{ row_version: number }>(own.base);
    const change = (version: number, content: object) =>
      call('PATCH', own.base, { version, change: content });
    expect((await change(row_version, { reference: 'nobody' })).content.detail).toBe(
      'reference nobody is no contender of this study',
    );
    const changed = await change(row_version, { reference: 'c-2', question: 'Which?' });
    expect(changed.content).toMatchObject({ reference: 'c-2', question: 'Which?' });
    expect((await change(row_version, { question: 'Late?' })).status).toBe(409);
  });

  it('is put away by its title only, and comes back', async () => {
    const own = await bench();
    const away = (title: string) => call('DELETE', own.base, { title });
    expect((await away('Another')).status).toBe(422);
    expect((await away('A fleet')).status).toBe(204);
    expect((await call('GET', own.base)).status).toBe(404);
    expect((await own.add('materials', { material_id: 'x', type: 'PLA' })).status).toBe(404);
    expect((await call('POST', own.base, { action: 'restore' })).status).toBe(204);
    expect((await call('GET', own.base)).status).toBe(200);
  });
});
