import { v7 as uuid } from 'uuid';
import { describe, expect, it } from 'vitest';
import { latestPrints, printedPlaces } from '../../src/data';
import { createFleet } from '../support/fleet';
import { sharedServed } from '../support/served';

const { call, db, get, url } = sharedServed();

const at = (minute: number) => new Date(Date.UTC(2026, 2, 2, 8, minute)).toISOString();

const print = (print_id: string, contender_id = 'c-1', more = {}) => ({
  print_id,
  contender_id,
  artefact_id: 'clip',
  material_id: 'pla',
  repeat: 1,
  started_at: at(0),
  ...more,
});

/** A study of two machines, with what a person does at the bench. */
async function bench() {
  const study = await createFleet(url(), 2);
  const base = `/studies/${study}`;
  return {
    base,
    start: (row: object) => call('POST', `${base}/rows/open_prints`, row),
    note: (print_id: string, kind: string, minute: number, event_id = uuid()) =>
      call('POST', `${base}/rows/print_events`, {
        event_id,
        print_id,
        kind,
        at: at(minute),
        source: 'person',
        operator: 'LK',
      }),
    end: (row: object, specimens: object[] = []) =>
      call('POST', `${base}/prints`, { print: row, specimens }),
    rows: (table: string) => get<Record<string, unknown>[]>(`${base}/rows/${table}`),
  };
}

const said = (answer: { content: Record<string, unknown> }) => String(answer.content.detail);

describe('prints of a study', () => {
  it('are shown as the latest of each place of the matrix, in the order in which they ended', async () => {
    const own = await bench();
    const study = own.base.split('/').at(-1) ?? '';
    const ended = async (id: string, contender: string, repeat: number) => {
      const row = print(id, contender, { repeat, outcome: 'success' });
      expect((await own.end(row)).status).toBe(201);
    };
    for (const repeat of [1, 2, 3, 4, 5]) {
      await ended(`a-${repeat}`, 'c-1', repeat);
      if (repeat > 3) await ended(`b-${repeat}`, 'c-2', repeat);
    }
    const latest = await latestPrints(db(), study, 3);
    expect(latest.map((row) => row.print_id)).toEqual(['a-3', 'a-4', 'b-4', 'a-5', 'b-5']);
    expect(await printedPlaces(db(), study)).toHaveLength(7);
    // What is not planned has no place in the order that could be done.
    await db().sequelize.query('delete from planned where study_id = $1', { bind: [study] });
    expect(await printedPlaces(db(), study)).toEqual([]);
  });
});

describe('a print that is started', () => {
  it('keeps its machine until it ends; another machine is free', async () => {
    const own = await bench();
    expect((await own.start(print('p-1'))).status).toBe(201);
    const second = await own.start(print('p-2', 'c-1', { repeat: 2 }));
    expect(second.status).toBe(422);
    expect(said(second)).toContain(
      'is on a machine that is printing already (clip, repeat 1): end that print first',
    );
    expect((await own.start(print('p-3', 'c-2'))).status).toBe(201);
    expect((await own.end(print('p-1', 'c-1', { outcome: 'success' }))).status).toBe(201);
    expect((await own.start(print('p-2', 'c-1', { repeat: 2 }))).status).toBe(201);
  });

  it('two at the same moment on one machine are one', async () => {
    const own = await bench();
    const answers = await Promise.all(
      Array.from({ length: 8 }, (_, n) => own.start(print(`p-${n}`, 'c-1', { repeat: n + 1 }))),
    );
    expect(answers.filter(({ status }) => status === 201)).toHaveLength(1);
    expect(answers.filter(({ status }) => status === 422)).toHaveLength(7);
  });

  it('cannot be one that has ended', async () => {
    const own = await bench();
    await own.end(print('p-1', 'c-1', { outcome: 'success' }));
    expect(said(await own.start(print('p-1')))).toContain('is a print that has ended');
  });

  it('has no end before its start', async () => {
    const own = await bench();
    const answer = await own.start(print('p-1', 'c-1', { ended_at: '2026-03-01T00:00:00Z' }));
    expect(said(answer)).toContain('is before started_at');
  });
});

describe('what happens to a print', () => {
  it('fits what it was doing', async () => {
    const own = await bench();
    await own.start(print('p-1'));
    expect((await own.note('p-1', 'heated', 5)).status).toBe(201);
    expect(said(await own.note('p-1', 'resumed', 6))).toContain(
      'does not fit: the print was printing then',
    );
    expect((await own.note('p-1', 'paused', 10)).status).toBe(201);
    expect(said(await own.note('p-1', 'stalled', 11))).toContain('the print was paused then');
    expect((await own.note('p-1', 'resumed', 12)).status).toBe(201);
    expect(said(await own.note('p-1', 'paused', -1))).toContain('is before the print began');
  });

  it('is noted once, however often it is sent', async () => {
    const own = await bench();
    await own.start(print('p-1'));
    const id = uuid();
    expect((await own.note('p-1', 'paused', 5, id)).status).toBe(201);
    expect((await own.note('p-1', 'paused', 5, id)).status).toBeLessThan(300);
    expect(await own.rows('print_events')).toHaveLength(1);
  });

  it('is of a print that runs', async () => {
    const own = await bench();
    expect(said(await own.note('p-9', 'paused', 5))).toContain('is not among the prints');
    await own.end(print('p-1', 'c-1', { outcome: 'success' }));
    expect(said(await own.note('p-1', 'paused', 5))).toContain('is a print that has ended');
  });
});

describe('a print that ends', () => {
  it('is no longer open; its parts come with it, once', async () => {
    const own = await bench();
    await own.start(print('p-1'));
    const row = print('p-1', 'c-1', { outcome: 'rescued', ended_at: at(60), print_s: 3000 });
    const parts = [1, 2].map((copy) => ({ specimen_id: `s-${copy}`, print_id: 'p-1', copy }));
    for (let times = 0; times < 2; times += 1) {
      expect((await own.end(row, parts)).status).toBe(201);
    }
    expect(await own.rows('open_prints')).toEqual([]);
    expect(await own.rows('prints')).toHaveLength(1);
    expect(await own.rows('specimens')).toHaveLength(2);
  });

  it('takes nothing in where a part is of another print', async () => {
    const own = await bench();
    const answer = await own.end(print('p-1', 'c-1', { outcome: 'success' }), [
      { specimen_id: 's-1', print_id: 'p-2' },
    ]);
    expect(said(answer)).toBe('A specimen names another print.');
    expect(await own.rows('prints')).toEqual([]);
  });

  it('takes nothing in where a part’s code is taken', async () => {
    const own = await bench();
    const part = (specimen_id: string, print_id: string) => ({
      specimen_id,
      print_id,
      code: 'K-001',
    });
    await own.end(print('p-1', 'c-1', { outcome: 'success' }), [part('s-1', 'p-1')]);
    await own.start(print('p-2', 'c-2'));
    const answer = await own.end(print('p-2', 'c-2', { outcome: 'success' }), [part('s-1', 'p-2')]);
    expect(answer.status).toBe(409);
    expect(await own.rows('prints')).toHaveLength(1);
    expect(await own.rows('open_prints')).toHaveLength(1);
  });

  it.each([
    [{ ended_at: at(10), paused_s: 661 }, 422],
    [{ ended_at: at(10), paused_s: 601 }, 201],
    [{ ended_at: at(-10) }, 422],
    [{ filament_g: 10, waste_g: 11 }, 422],
    [{ filament_g: 10, waste_g: 10 }, 201],
    [{ progress_pct: 101 }, 400],
    [{ outcome: 'perfect' }, 400],
    [{ print_s: 0 }, 400],
  ])('with %j is answered %i', async (more, status) => {
    const own = await bench();
    const answer = await own.end(print('p-1', 'c-1', { outcome: 'failed', ...more }));
    expect(answer.status, said(answer)).toBe(status);
    expect(await own.rows('prints')).toHaveLength(status === 201 ? 1 : 0);
  });
});
