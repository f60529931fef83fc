import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { v7 as uuid } from 'uuid';
import type { MachineMessage } from '../../src/core/model/link';
import {
  countStranger,
  createStudy,
  insertRow,
  linkState,
  listRows,
  writeStudy,
  type Database,
  type Stored,
} from '../../src/data';
import type { Row, TableName } from '../../src/core/model/study';
import { TABLES } from '../../src/core/model/study';
import { execute } from '../../src/data/database';
import { applyMachine, applyMeter } from '../../src/server/link/apply';
import { freshDatabase } from '../support/database';

let db: Database;
let drop: () => Promise<void>;
let study: string;

beforeAll(async () => {
  ({ db, drop } = await freshDatabase());
});
afterAll(() => drop());

/** A study with a machine of two contenders, and the clip planned with each. */
beforeEach(async () => {
  study = uuid();
  await createStudy(db, study, {
    name: 'link',
    title: 'Link',
    intent: 'machines',
    description: null,
    question: null,
    reference: null,
    cost: null,
    scorecard: null,
    smallest_difference: {},
    created: new Date().toISOString(),
  });
  const add = (table: TableName, row: object) =>
    writeStudy(db, study, 'LK', (write) =>
      insertRow(write, table, TABLES[table].row.parse(row) as Row<TableName>),
    );
  await add('machines', { machine_id: 'm', name: 'M' });
  await add('profiles', { profile_id: 'p', name: 'Stock', kind: 'stock' });
  await add('profiles', { profile_id: 'q', name: 'Tuned', kind: 'tuned', parent_id: 'p' });
  await add('materials', { material_id: 'pla', type: 'PLA' });
  await add('artefacts', { artefact_id: 'clip', name: 'Clip' });
  for (const [contender_id, profile_id] of [
    ['stock', 'p'],
    ['tuned', 'q'],
  ] as const) {
    await add('contenders', { contender_id, label: contender_id, machine_id: 'm', profile_id });
    await add('planned', {
      contender_id,
      artefact_id: 'clip',
      material_id: 'pla',
      repeats: 1,
      toolpath: `sliced/clip-${contender_id}.gcode`,
    });
  }
});

const at = (minute: number) => new Date(Date.UTC(2026, 2, 2, 8, minute)).toISOString();

let sequence = 0;
const say = (
  state: MachineMessage['state'],
  minute: number,
  more: Partial<MachineMessage> = {},
): Promise<string> =>
  applyMachine(db, study, 'm', {
    session: 's',
    sequence: ++sequence,
    at: at(minute),
    state,
    ...(state !== 'idle' && { job: 'j1' }),
    ...more,
  });

const rows = <Name extends TableName>(table: Name): Promise<Stored<Name>[]> =>
  listRows(db, study, table);

describe('a machine on the bench link', () => {
  it('opens the print that its file names, and ends it with its times', async () => {
    const file = 'clip-tuned.gcode';
    expect(await say('heating', 0, { file })).toBe('followed');
    const [open] = await rows('open_prints');
    expect(open).toMatchObject({ contender_id: 'tuned', repeat: 1, started_at: at(0) });
    await say('printing', 4, { file, progress: 0.1 });
    await say('paused', 10, { file, progress: 0.3 });
    await say('printing', 12, { file, progress: 0.3 });
    await say('done', 30, { file, progress: 1 });
    expect(await rows('open_prints')).toEqual([]);
    const [print] = await rows('prints');
    // 4 min heating; 26 min to the end, 2 of them paused.
    expect(print).toMatchObject({
      outcome: 'success',
      heat_s: 240,
      print_s: 1440,
      paused_s: 120,
      progress_pct: 100,
      ended_at: at(30),
    });
    const events = (await rows('print_events')).map(({ kind, source }) => `${kind} ${source}`);
    expect(events).toEqual([
      'started link',
      'heated link',
      'paused link',
      'resumed link',
      'ended link',
    ]);
  });

  it('takes the next of the plan where its file names none of it', async () => {
    await say('printing', 0, { file: 'another-part.gcode', job: 'a' });
    await say('done', 10, { job: 'a' });
    await say('printing', 20, { job: 'b' });
    await say('done', 30, { job: 'b' });
    const contenders = (await rows('prints')).map(({ contender_id }) => contender_id);
    expect([...contenders].sort()).toEqual(['stock', 'tuned']);
  });

  it('without anything planned opens nothing, and says so', async () => {
    await say('printing', 0, { job: 'a' });
    await say('done', 10, { job: 'a' });
    await say('printing', 20, { job: 'b' });
    await say('done', 30, { job: 'b' });
    expect(await say('printing', 40, { job: 'c' })).toBe('no plan for it');
    expect(await rows('open_prints')).toEqual([]);
  });

  it('says what went wrong as an incident that a person confirms', async () => {
    await say('printing', 0);
    await say('failed', 12, { progress: 0.42, reason: 'clogged' });
    expect((await rows('prints'))[0]).toMatchObject({ outcome: 'failed', progress_pct: 42 });
    expect(await rows('incidents')).toMatchObject([
      {
        machine_id: 'm',
        mode: 'clogged',
        cause: 'unknown',
        at: at(12),
        progress_pct: 42,
        note: 'from the bench link, to be confirmed',
      },
    ]);
  });

  it('a stand-still counts as an incident with the time that it took, and not as printing', async () => {
    await say('printing', 0, { progress: 0 });
    await say('printing', 5, { progress: 0.2 });
    // Ten minutes without progress and more: it stood from minute 5 on.
    await say('printing', 20, { progress: 0.2 });
    await say('printing', 25, { progress: 0.3 });
    await say('done', 40, { progress: 1 });
    const [print] = await rows('prints');
    expect(print).toMatchObject({ print_s: 20 * 60, paused_s: 20 * 60 });
    expect(await rows('incidents')).toMatchObject([
      { mode: 'stalled', at: at(5), downtime_s: 20 * 60 },
    ]);
  });

  it('a message that comes again or late changes nothing', async () => {
    await say('printing', 0);
    const before = await rows('print_events');
    const own = { session: 's', at: at(0), state: 'printing', job: 'j1' } as const;
    expect(await applyMachine(db, study, 'm', { ...own, sequence })).toBe('repeated');
    expect(await applyMachine(db, study, 'm', { ...own, sequence: sequence - 1 })).toBe('late');
    expect(await rows('print_events')).toEqual(before);
  });

  it('a clock that is wrong by years does not make a machine late for ever', async () => {
    expect(await say('printing', 0, { at: '2199-01-01T00:00:00Z' })).toBe('ahead of time');
    expect(await say('printing', 0)).toBe('followed');
  });

  it('many messages at once are followed one after another', async () => {
    await say('printing', 0);
    const answers = await Promise.all(
      [2, 4, 6, 8].map((minute) => say('printing', minute, { progress: minute / 10 })),
    );
    expect(answers.every((one) => one === 'followed' || one === 'late')).toBe(true);
    expect(answers).toContain('followed');
    expect(await rows('open_prints')).toHaveLength(1);
  });
});

describe('a print that its machine ended', () => {
  const enter = (table: TableName, row: object) =>
    writeStudy(db, study, 'LK', (write) =>
      insertRow(write, table, TABLES[table].row.parse(row) as Row<TableName>),
    );
  /** What a sliced file says of its filament, as if it had been read. */
  const readFile = async (path: string, facts: object) => {
    const sha256 = uuid().replaceAll('-', '').padEnd(64, '0');
    await execute(db, `insert into stored_files (sha256, bytes) values ($1, 1)`, [sha256]);
    await execute(db, 'insert into study_files (study_id, path, sha256) values ($1, $2, $3)', [
      study,
      path,
      sha256,
    ]);
    await execute(
      db,
      `insert into sliced_files (study_id, path, sha256, facts) values ($1, $2, $3, $4)`,
      [study, path, sha256, JSON.stringify(facts)],
    );
  };
  const printed = async (
    file: string,
    minute: number,
    last: 'done' | 'failed',
    progress: number,
  ) => {
    const job = `job at ${minute}`;
    await say('printing', minute, { file, job });
    await say(last, minute + 10, { file, job, progress });
  };

  it('has a part with a sticker, and one for each place where copies have places', async () => {
    await printed('clip-stock.gcode', 0, 'done', 1);
    await enter('copy_places', { artefact_id: 'clip', copy: 2, x_mm: 40, y_mm: 0 });
    await enter('copy_places', { artefact_id: 'clip', copy: 1, x_mm: -40, y_mm: 5 });
    await printed('clip-tuned.gcode', 20, 'done', 1);
    const prints = await rows('prints');
    const partsOf = (contender: string, all: Stored<'specimens'>[]) => {
      const own = prints.find(({ contender_id }) => contender_id === contender)?.print_id;
      return all.filter(({ print_id }) => print_id === own);
    };
    const parts = await rows('specimens');
    expect(partsOf('stock', parts)).toMatchObject([{ copy: 1, plate_x_mm: null }]);
    expect(partsOf('tuned', parts)).toMatchObject([
      { copy: 1, plate_x_mm: -40, plate_y_mm: 5 },
      { copy: 2, plate_x_mm: 40, plate_y_mm: 0 },
    ]);
    const codes = parts.map(({ code }) => code);
    for (const code of codes) expect(code).toMatch(/^[A-Z]\d?-\d{3}$/);
    expect(new Set(codes).size).toBe(3);
  });

  it('that failed has no part', async () => {
    await printed('clip-stock.gcode', 0, 'failed', 0.4);
    expect(await rows('prints')).toMatchObject([{ outcome: 'failed' }]);
    expect(await rows('specimens')).toEqual([]);
  });

  it('has the grams of its file by its progress, and says that they are the file’s', async () => {
    const facts = { filament_g: 40, filament_mm: 12_000 };
    await readFile('sliced/clip-stock.gcode', facts);
    await readFile('sliced/clip-tuned.gcode', facts);
    await printed('clip-stock.gcode', 0, 'done', 1);
    await printed('clip-tuned.gcode', 20, 'failed', 0.25);
    const prints = await rows('prints');
    expect(prints.find((one) => one.contender_id === 'stock')).toMatchObject({
      filament_g: 40,
      filament_m: 12,
      filament_from: 'file',
    });
    expect(prints.find((one) => one.contender_id === 'tuned')).toMatchObject({
      filament_g: 10,
      filament_m: 3,
      filament_from: 'file',
    });
  });

  it('has the plate and nozzle of its machine’s own last print, never of another machine', async () => {
    await enter('machines', { machine_id: 'other', name: 'Other' });
    await enter('contenders', {
      contender_id: 'o',
      label: 'o',
      machine_id: 'other',
      profile_id: 'p',
    });
    const before = { artefact_id: 'clip', material_id: 'pla', outcome: 'success' };
    await enter('prints', {
      ...before,
      print_id: 'P1',
      contender_id: 'tuned',
      repeat: 8,
      ended_at: at(-90),
      plate: 'smooth',
      nozzle_mm: 0.6,
    });
    await enter('prints', {
      ...before,
      print_id: 'P2',
      contender_id: 'o',
      repeat: 9,
      ended_at: at(-30),
      plate: 'glass',
      nozzle_mm: 0.8,
    });
    await printed('clip-stock.gcode', 0, 'done', 1);
    const own = (await rows('prints')).find((one) => one.contender_id === 'stock');
    expect(own).toMatchObject({ plate: 'smooth', nozzle_mm: 0.6 });
  });
});

describe('a machine that no study knows', () => {
  it('is listed with how often it was heard, so that its id can be compared', async () => {
    for (const machine of ['m-typo', 'm-typo', 'other']) await countStranger(db, machine);
    const { strangers } = await linkState(db, study);
    expect(strangers.map(({ machine_id, count }) => `${machine_id} ${count}`).sort()).toEqual([
      'm-typo 2',
      'other 1',
    ]);
  });
});

describe('what a machine said', () => {
  it('is entered in its name, and what people enter is not', async () => {
    await say('heating', 0, { file: 'clip-tuned.gcode' });
    const [kept] = (await db.sequelize.query(
      `select (select entered_by from prints where study_id = '${study}' limit 1) as print,
         (select entered_by from open_prints where study_id = '${study}' limit 1) as opened,
         (select array_agg(distinct actor) from changes where study_id = '${study}' and who = 'LK') as people`,
    )) as unknown as [{ print: string | null; opened: string | null; people: (string | null)[] }[]];
    expect([kept[0]?.print, kept[0]?.opened]).toContain('machine:m');
    expect(kept[0]?.people).toEqual([null]);
  });
});

describe('a power meter', () => {
  const meter = (energy_wh: number) =>
    applyMeter(db, study, 'm', { session: 'w', sequence: 1, at: at(0), energy_wh });

  it('gives a print the energy from its start to its end', async () => {
    await say('idle', 0);
    await meter(1000);
    await say('printing', 1);
    await meter(1060);
    await meter(1150);
    await say('done', 60);
    expect((await rows('prints'))[0]).toMatchObject({ energy_wh: 150 });
  });

  it('that was reset while it printed gives none: it is not known', async () => {
    await say('idle', 0);
    await meter(1000);
    await say('printing', 1);
    await meter(5);
    await say('done', 60);
    expect((await rows('prints'))[0]).toMatchObject({ energy_wh: null });
  });

  it('that begins after the print has begun counts from its first word on', async () => {
    await say('printing', 1);
    await meter(500);
    await meter(540);
    await say('done', 60);
    expect((await rows('prints'))[0]).toMatchObject({ energy_wh: 40 });
  });
});
