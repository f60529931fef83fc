import { Readable } from 'node:stream';
import { v7 as uuid } from 'uuid';
import { describe, expect, it } from 'vitest';
import { storeContent } from '../../src/data';
import { createFleet } from '../support/fleet';
import { sharedServed } from '../support/served';

const { call, db, get, url } = sharedServed();

type Row = Record<string, unknown>;

const AT = '2026-03-02T08:00:00Z';
const print = (print_id: string, more: Row = {}) => ({
  print_id,
  contender_id: 'c-1',
  artefact_id: 'clip',
  material_id: 'pla',
  repeat: 1,
  started_at: AT,
  outcome: 'success',
  ...more,
});

/** A study of two machines with a part that has one dimension, and what is done in it. */
async function bench() {
  const study = await createFleet(url(), 2);
  const base = `/studies/${study}`;
  const add = (table: string, row: Row) => call('POST', `${base}/rows/${table}`, row);
  await add('dimensions', {
    artefact_id: 'clip',
    dimension_id: 'width',
    name: 'Width',
    axis: 'x',
    kind: 'external',
    nominal_mm: 20,
  });
  return {
    study,
    base,
    add,
    rows: (table: string) => get<Row[]>(`${base}/rows/${table}`),
    end: (
      row: Row,
      parts: Row[] = [
        { specimen_id: `s-${String(row.print_id)}`, print_id: row.print_id, copy: 1 },
      ],
    ) => call('POST', `${base}/prints`, { print: row, specimens: parts }),
    read: (...readings: Row[]) => call('POST', `${base}/readings/batch`, { readings }),
    delete: (table: string, ...key: string[]) => call('POST', `${base}/deletions`, { table, key }),
    restore: (id: unknown) =>
      call('POST', `${base}/deletions/${String(id)}`, { action: 'restore' }),
  };
}

const reading = (specimen_id: string, value_mm: number, more: Row = {}) => ({
  reading_id: uuid(),
  specimen_id,
  dimension_id: 'width',
  trial: 1,
  value_mm,
  instrument_id: null,
  operator: 'LK',
  at: AT,
  ...more,
});
const detail = (answer: { content: Row }) => String(answer.content.detail);
const codesOf = (answer: { content: Row }) =>
  (answer.content.specimens as { code: string }[]).map(({ code }) => code);

describe('a sticker', () => {
  it('is drawn for each part in its own write: sixteen prints at once have sixteen', async () => {
    const own = await bench();
    const ended = await Promise.all(
      Array.from({ length: 16 }, (_, at) => own.end(print(`p-${at}`, { repeat: at + 1 }))),
    );
    expect(new Set(ended.flatMap(codesOf)).size).toBe(16);
    // Sent again, a print has the sticker that it was given.
    const again = await own.end(print('p-3', { repeat: 4 }));
    expect(codesOf(again)).toEqual(codesOf(ended[3] ?? again));
    expect(await own.rows('specimens')).toHaveLength(16);
  });

  it('that is on another part is refused, with one that is free', async () => {
    const own = await bench();
    await own.end(print('p-1'), [{ specimen_id: 'a', print_id: 'p-1', code: 'K7-009' }]);
    const taken = await own.end(print('p-2', { repeat: 2 }), [
      { specimen_id: 'b', print_id: 'p-2', code: 'k7-009' },
    ]);
    expect(taken.status).toBe(409);
    expect(detail(taken)).toBe(
      'The sticker k7-009 is on another part (Clip, Machine 1, repeat 1). Use K7-010, which is free.',
    );
    expect(taken.content).toMatchObject({ proposal: 'K7-010', issues: [{ path: 'code' }] });
    // Nothing of it is stored, and the proposal is good.
    expect(await own.rows('prints')).toHaveLength(1);
    await own.end(print('p-2', { repeat: 2 }));
    const [, second] = await own.rows('specimens');
    expect(second?.code).toBe('K7-010');
    const change = await call('PATCH', `${own.base}/rows/specimens/s-p-2`, {
      version: 1,
      change: { code: 'K7-009' },
    });
    expect(change.status).toBe(409);
    await expect(
      db().sequelize.query(
        `update specimens set code = 'k7-009' where study_id = '${own.study}' and specimen_id = 's-p-2'`,
      ),
    ).rejects.toThrow();
  });

  it('of a part that was deleted is not given to another as long as it can be restored', async () => {
    const own = await bench();
    await own.end(print('p-1'));
    await own.delete('prints', 'p-1');
    expect(codesOf(await own.end(print('p-2')))).toEqual(['S-002']);
  });
});

describe('a print that was wrong', () => {
  it('is deleted with all that hangs from it, and restored to the last cell', async () => {
    const own = await bench();
    await own.end(print('p-1'));
    await own.end(print('p-2', { repeat: 2 }));
    await own.read(reading('s-p-1', 20.1), reading('s-p-1', 20.2), reading('s-p-2', 19.9));
    await own.add('plate_uses', { print_id: 'p-1', hold: 'corner', aid: 'glue-stick' });
    await own.add('incidents', {
      incident_id: 'i-1',
      machine_id: 'm-1',
      print_id: 'p-1',
      mode: 'warped',
      cause: 'machine',
    });
    const tables = ['prints', 'specimens', 'readings', 'incidents', 'plate_uses'];
    const all = async () =>
      Promise.all(
        tables.map(
          async (table) =>
            (
              await db().sequelize.query(
                `select to_jsonb(t) as row from ${table} t where study_id = '${own.study}' order by ordinal`,
              )
            )[0],
        ),
      );
    const before = await all();
    const look = await call('PUT', `${own.base}/deletions`, { table: 'prints', key: ['p-1'] });
    expect(look.content).toMatchObject({ title: 'Clip, Machine 1, repeat 1' });
    expect(
      Object.fromEntries((look.content.counts as Row[]).map((one) => [one.table, one.rows])),
    ).toEqual({ prints: 1, specimens: 1, readings: 2, incidents: 1, plate_uses: 1 });
    expect(await all()).toEqual(before);
    const gone = await own.delete('prints', 'p-1');
    expect(gone.status).toBe(201);
    expect((await own.rows('prints')).map((row) => row.print_id)).toEqual(['p-2']);
    expect((await get<Row[]>(`${own.base}/readings`)).map((row) => row.value_mm)).toEqual([19.9]);
    const list = await get<Row[]>(`${own.base}/deletions`);
    expect(list).toMatchObject([{ table_name: 'prints', days_left: 29 }]);
    for (let times = 0; times < 2; times += 1) {
      expect((await own.restore(gone.content.deletion_id)).status).toBe(200);
      expect(await all()).toEqual(before);
    }
    expect(await get<Row[]>(`${own.base}/deletions`)).toEqual([]);
  });

  it('cannot be restored over another that took its place', async () => {
    const own = await bench();
    await own.end(print('p-1'));
    const gone = await own.delete('prints', 'p-1');
    await own.end(print('p-1'));
    const answer = await own.restore(gone.content.deletion_id);
    expect(answer.status).toBe(409);
    expect(detail(answer)).toContain('has the same name or sticker by now');
    expect(await own.rows('specimens')).toHaveLength(1);
  });

  it('cannot be restored over another file of the same name', async () => {
    const own = await bench();
    await own.end(print('p-1'));
    const gone = await own.delete('prints', 'p-1');
    const stored = (text: string) => storeContent(db(), Readable.from([Buffer.from(text)]));
    const [before, now] = [await stored(`before ${own.study}`), await stored(`now ${own.study}`)];
    const held = JSON.stringify([{ path: 'photos/a.jpg', sha256: before }]);
    await db().sequelize.query(
      `update deletions set held = jsonb_set(held, '{files}', '${held}') where study_id = '${own.study}'`,
    );
    await db().sequelize.query(
      `insert into study_files (study_id, path, sha256) values ('${own.study}', 'photos/a.jpg', '${now}')`,
    );
    const answer = await own.restore(gone.content.deletion_id);
    expect(answer.status).toBe(409);
    expect(detail(answer)).toContain('there is another file called photos/a.jpg by now');
    expect(await own.rows('prints')).toEqual([]);
  });

  it('moves to another contender with its incidents, whose machine is another then', async () => {
    const own = await bench();
    await own.end(print('p-1'));
    await own.add('incidents', {
      incident_id: 'i-1',
      machine_id: 'm-1',
      print_id: 'p-1',
      mode: 'warped',
      cause: 'machine',
    });
    const moved = await call('PATCH', `${own.base}/rows/prints/p-1`, {
      version: 1,
      change: { contender_id: 'c-2', repeat: 2 },
    });
    expect(moved.status).toBe(200);
    expect(await own.rows('incidents')).toMatchObject([{ machine_id: 'm-2' }]);
  });

  it('that is not there is not there, whatever its id', async () => {
    const own = await bench();
    expect((await own.delete('prints', 'p-9')).status).toBe(404);
    expect((await own.delete('machines', 'm-1')).status).toBe(400);
    expect((await own.restore(uuid())).status).toBe(404);
  });
});

describe('readings', () => {
  it('of the wrong part move to the right one, once, and back', async () => {
    const own = await bench();
    await own.end(print('p-1'));
    await own.end(print('p-2', { repeat: 2 }));
    const [one, two] = [reading('s-p-1', 20.1), reading('s-p-1', 20.2)];
    await own.read(one, two);
    const move = (ids: unknown[], to: string) =>
      call('POST', `${own.base}/readings/moves`, { reading_ids: ids, to, at: AT });
    const first = await move([one.reading_id, two.reading_id], 's-p-2');
    expect(first.status).toBe(201);
    const again = await move([one.reading_id, two.reading_id], 's-p-2');
    expect(again.content).toEqual(first.content);
    const now = () => get<Row[]>(`${own.base}/readings`);
    expect((await now()).map((row) => [row.specimen_id, row.value_mm])).toEqual([
      ['s-p-2', 20.1],
      ['s-p-2', 20.2],
    ]);
    const ids = (first.content.readings as Row[]).map((row) => row.reading_id);
    expect((await move(ids, 's-p-1')).status).toBe(201);
    expect((await now()).map((row) => row.specimen_id)).toEqual(['s-p-1', 's-p-1']);
    expect((await move([one.reading_id], 's-p-2')).status).toBe(201);
    expect((await move([uuid()], 's-p-2')).status).toBe(404);
  });

  it('in their thousands are a few statements, in the order in which they were sent', async () => {
    const own = await bench();
    await own.end(print('p-1'));
    const many = Array.from({ length: 1500 }, (_, at) =>
      reading('s-p-1', 20 + at / 1e4, { operator: at % 2 ? 'LK' : 'KM' }),
    );
    const began = Date.now();
    expect((await own.read(...many)).status).toBe(201);
    expect(Date.now() - began).toBeLessThan(20_000);
    const kept = await get<{ value_mm: number; trial: number; operator: string }[]>(
      `${own.base}/readings`,
    );
    expect(kept.map((row) => row.value_mm)).toEqual(many.map((row) => row.value_mm));
    const trials = kept.filter((row) => row.operator === 'LK').map((row) => row.trial);
    expect(trials).toEqual(trials.map((_, at) => at + 1));
  });

  it('whose id is sent again with another value are refused, and the same are the same', async () => {
    const own = await bench();
    await own.end(print('p-1'));
    const first = reading('s-p-1', 20.1);
    expect((await own.read(first)).status).toBe(201);
    expect((await own.read(first)).status).toBe(201);
    const other = await own.read({ ...first, value_mm: 21 });
    expect(other.status).toBe(409);
    expect(detail(other)).toContain('exists already, with another value');
    expect(await get<Row[]>(`${own.base}/readings`)).toHaveLength(1);
  });

  it.each([
    [{ instrument_id: 'cal-9' }, 'instrument_id cal-9 is not among the instruments.'],
    [{ dimension_id: 'depth' }, 'dimension_id depth is not among the dimensions of this part.'],
    [{ specimen_id: 's-9' }, 'specimen_id s-9 is not among the specimens.'],
  ])('are told what they name and what is not there: %j', async (more, words) => {
    const own = await bench();
    await own.end(print('p-1'));
    const answer = await own.read(reading('s-p-1', 20), reading('s-p-1', 20, more));
    expect([answer.status, detail(answer)]).toEqual([422, words]);
    expect(await get<Row[]>(`${own.base}/readings`)).toEqual([]);
  });
});

describe('a study that compares materials', () => {
  it('needs the material of every contender before it is one', async () => {
    const own = await bench();
    const ask = async () => {
      const { row_version: version } = await get<Row>(own.base);
      return call('PATCH', own.base, { version, change: { intent: 'materials' } });
    };
    const refused = await ask();
    expect(refused.status).toBe(422);
    expect(detail(refused)).toContain('names no material. Give every contender its material_id');
    for (const row of await own.rows('contenders')) {
      const change = { version: row.row_version ?? 1, change: { material_id: 'pla' } };
      await call('PATCH', `${own.base}/rows/contenders/${String(row.contender_id)}`, change);
    }
    expect((await ask()).status).toBe(200);
  });
});

describe('a change of firmware', () => {
  const change = (at: string, what: string) => ({
    change_id: uuid(),
    machine_id: 'm-1',
    at,
    kind: 'firmware',
    what,
    operator: 'LK',
  });

  it('is the machine’s from its time on; prints before it keep the one that they had', async () => {
    const own = await bench();
    await call('PATCH', `${own.base}/rows/machines/m-1`, {
      version: 1,
      change: { firmware: '1.9' },
    });
    await own.end(print('p-1'));
    await own.end(print('p-2', { repeat: 2, started_at: '2026-03-04T08:00:00Z' }));
    expect(
      (await own.add('machine_changes', change('2026-03-03T08:00:00Z', '1.9 to 2.4'))).status,
    ).toBe(201);
    expect(await own.rows('machines')).toMatchObject([{ firmware: '2.4' }, { firmware: null }]);
    expect((await own.rows('prints')).map((row) => row.firmware)).toEqual(['1.9', null]);
    // One that was before it and is entered later changes nothing today.
    await own.add('machine_changes', change('2026-03-01T08:00:00Z', '1.8 to 1.9'));
    expect((await own.rows('machines'))[0]?.firmware).toBe('2.4');
  });

  it('that is to come is refused', async () => {
    const own = await bench();
    const answer = await own.add('machine_changes', change('2199-01-01T00:00:00Z', '9.9'));
    expect([answer.status, detail(answer)]).toEqual([
      422,
      'at is in the future: enter a change once it is made',
    ]);
  });
});

describe('a level that is typed with a print', () => {
  it('stands in noise, unless one of that distance is there', async () => {
    const own = await bench();
    await own.end(print('p-1', { noise_db: 47, noise_distance_m: 1 }));
    await own.end(print('p-2', { repeat: 2, noise_db: 51, noise_distance_m: 1 }));
    expect(await own.rows('noise')).toMatchObject([
      { machine_id: 'm-1', state: 'printing', distance_m: 1, db_a: 47 },
    ]);
  });
});

describe('letters of machines', () => {
  it('stay when another machine comes whose id is before theirs', async () => {
    const own = await bench();
    const letters = async () =>
      (await own.rows('machines'))
        .map((row) => `${String(row.machine_id)} ${String(row.letter)}`)
        .sort();
    expect(await letters()).toEqual(['m-1 A', 'm-2 B']);
    await own.add('machines', { machine_id: 'a-0', name: 'Early' });
    await own.add('contenders', {
      contender_id: 'a-0',
      label: 'Early',
      machine_id: 'a-0',
      profile_id: 'p',
    });
    expect(await letters()).toEqual(['a-0 C', 'm-1 A', 'm-2 B']);
  });
});

describe('an id that is none', () => {
  it.each([
    'photos',
    'photos/original?path=a',
    'photos/part?path=a',
    'photos/marks?path=a',
    'report',
    'history?table=prints&key=p',
    'incidents/i/photos?path=a',
    'rows/prints',
    'runs',
    'specimens',
    'deletions',
    'results',
    'evidence?figure=a',
    'link',
    'package',
    'sliced-files',
    'progress',
    'readings',
    'panels',
    'follow-ups',
    'live',
    'find?code=a',
    'report/revisions',
    'inspections',
    'agreement',
  ])('is nobody’s: /studies/no-uuid/%s', async (path) => {
    const answer = await call('GET', `/studies/no-uuid/${path}`);
    expect([answer.status, answer.type]).toEqual([404, 'application/problem+json']);
  });
});
