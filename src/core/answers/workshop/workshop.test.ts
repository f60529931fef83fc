import { describe, expect, it } from 'vitest';
import { print, smallStudy, TWO_SIDES } from '../../../../tests/support/small-study';
import { evaluate } from '../results/evaluate';
import {
  factDifferences,
  factsOf,
  JOINED,
  joinedStudy,
  keptInStep,
  nameOfThing,
  pairKey,
  proposeSame,
  recordOf,
  type KnownThing,
} from '.';

const thing = (
  uid: string,
  facts: KnownThing['facts'],
  more: Partial<KnownThing> = {},
): KnownThing => ({
  uid,
  kind: 'machine',
  facts,
  meshes: [],
  settings: null,
  studies: [uid],
  ...more,
});

const proposed = (...things: KnownThing[]) =>
  proposeSame(things).map(({ one, other, by }) => `${one}=${other} by ${by}`);

describe('a thing', () => {
  it('is what its row says, without its place in the study', () => {
    const row = { machine_id: 'gannet', name: 'Gannet X24', firmware: '1.9.2', uid: 'u' };
    const facts = factsOf('machine', row);
    expect(facts).toMatchObject({ name: 'Gannet X24', firmware: '1.9.2', maker: null });
    expect(Object.keys(facts)).not.toContain('machine_id');
    expect(Object.keys(facts)).not.toContain('uid');
    expect(Object.keys(factsOf('artefact', {}))).not.toContain('mesh');
  });

  it('is called by its name; a material by what it is and its lot', () => {
    expect(nameOfThing('machine', { name: 'Gannet X24' })).toBe('Gannet X24');
    const facts = { type: 'PLA', maker: 'Ropewalk', colour: 'slate', lot: 'RW-0417' };
    expect(nameOfThing('material', facts)).toBe('Ropewalk PLA, slate · RW-0417');
    expect(nameOfThing('material', { type: 'PETG' })).toBe('PETG');
  });
});

describe('plainly the same', () => {
  const gannet = { name: 'Gannet X24', maker: 'Holm Dynamics' };

  it('machines are by name and maker, in capitals or not, and not by name alone', () => {
    expect(
      proposed(thing('a', gannet), thing('b', { name: 'gannet x24 ', maker: 'HOLM DYNAMICS' })),
    ).toEqual(['a=b by name and maker']);
    expect(proposed(thing('a', gannet), thing('b', { name: 'Gannet X24' }))).toEqual([]);
    expect(proposed(thing('a', gannet), thing('b', { ...gannet, maker: 'Another' }))).toEqual([]);
  });

  it('a serial number decides, for and against', () => {
    expect(
      proposed(
        thing('a', { name: 'Left', serial: 'S1' }),
        thing('b', { name: 'Right', serial: 's1' }),
      ),
    ).toEqual(['a=b by serial number']);
    expect(
      proposed(thing('a', { ...gannet, serial: 'S1' }), thing('b', { ...gannet, serial: 'S2' })),
    ).toEqual([]);
  });

  it('artefacts are by mesh; where neither has one, by name and version', () => {
    const part = (uid: string, facts: KnownThing['facts'], meshes: string[] = []) =>
      thing(uid, facts, { kind: 'artefact', meshes });
    expect(
      proposed(part('a', { name: 'Stair' }, ['m']), part('b', { name: 'Block' }, ['m', 'n'])),
    ).toEqual(['a=b by mesh']);
    expect(proposed(part('a', { name: 'Stair' }, ['m']), part('b', { name: 'Stair' }))).toEqual([]);
    expect(
      proposed(part('a', { name: 'Stair', version: '1' }), part('b', { name: 'Stair' })),
    ).toEqual([]);
    expect(proposed(part('a', { name: 'Stair' }), part('b', { name: 'Stair' }))).toEqual([
      'a=b by name and version',
    ]);
  });

  it('materials are by type, maker and lot; profiles by name and settings', () => {
    const lot = { type: 'PLA', maker: 'Ropewalk', lot: 'RW-1' };
    const material = (uid: string, facts: KnownThing['facts']) =>
      thing(uid, facts, { kind: 'material' });
    expect(proposed(material('a', lot), material('b', { ...lot, colour: 'slate' }))).toEqual([
      'a=b by type, maker and lot',
    ]);
    expect(
      proposed(material('a', { ...lot, lot: null }), material('b', { ...lot, lot: null })),
    ).toEqual([]);
    expect(
      proposed(
        material('a', { ...lot, colour: 'red' }),
        material('b', { ...lot, colour: 'slate' }),
      ),
    ).toEqual([]);
    const profile = (uid: string, settings: string | null) =>
      thing(uid, { name: 'Stock' }, { kind: 'profile', settings });
    expect(proposed(profile('a', 's'), profile('b', 's'), profile('c', null))).toEqual([
      'a=b by name and settings',
    ]);
  });

  it('two that stand in one study are two, and so are two that a person told apart', () => {
    const [a, b] = [thing('a', gannet), thing('b', gannet)];
    expect(proposeSame([a, { ...b, studies: ['x', 'a'] }])).toEqual([]);
    expect(proposeSame([a, b], new Set([pairKey('b', 'a')]))).toEqual([]);
    expect(proposeSame([a, { ...b, kind: 'instrument' }])).toEqual([]);
  });
});

describe('then and today', () => {
  it('differ in what is known on both sides', () => {
    const then = { name: 'Gannet', firmware: '1.9.0', price_paid: null, nozzle_mm: 0.4 };
    const today = { name: 'Gannet', firmware: '1.9.2', price_paid: 649, nozzle_mm: 0.4 };
    expect(factDifferences('machine', then, today)).toEqual([
      { name: 'firmware', was: '1.9.0', is: '1.9.2' },
    ]);
  });

  it('stay in step where they were in step; what was not known is learnt', () => {
    const step = (before: string | null, after: string | null, today: string | null) =>
      keptInStep('machine', { firmware: before }, { firmware: after }, { firmware: today })
        ?.firmware;
    expect(step('1', '2', '1')).toBe('2');
    expect(step(null, '2', null)).toBe('2');
    // The workshop knows better, or the study only forgets.
    expect(step('1', '2', '3')).toBeUndefined();
    expect(step('1', null, '1')).toBeUndefined();
    expect(keptInStep('machine', null, { firmware: '1' }, { firmware: '2' })).toBeNull();
    expect(keptInStep('machine', null, { firmware: '1' }, { name: 'x', firmware: null })).toEqual({
      name: 'x',
      firmware: '1',
    });
  });
});

describe('a machine’s part of several studies', () => {
  const given = smallStudy({
    ...TWO_SIDES,
    prints: [print('1', 'R'), print('2', 'C', { outcome: 'failed' })],
    specimens: [{ specimen_id: 's', print_id: '1' }],
    noise: [
      { machine_id: 'mr', state: 'printing', distance_m: 1, db_a: 50 },
      { machine_id: 'mc', state: 'printing', distance_m: 1, db_a: 60 },
    ],
    incidents: [
      { incident_id: 'i', machine_id: 'mr', print_id: '1', mode: 'stalled', cause: 'machine' },
    ],
  });

  it('is one study of one machine, whose ids do not clash', () => {
    const joined = joinedStudy([
      { study: given, machineId: 'mr' },
      { study: given, machineId: 'mc' },
    ]);
    expect(joined.tables.prints.map((row) => row.print_id)).toEqual(['0:1', '1:2']);
    expect(joined.tables.specimens).toMatchObject([{ specimen_id: '0:s', print_id: '0:1' }]);
    expect(joined.tables.machines).toHaveLength(1);
    expect(joined.tables.noise.map((row) => row.db_a)).toEqual([50, 60]);
    const { ability } = evaluate(joined);
    expect(ability[JOINED]?.PLA).toMatchObject({ prints: 2, good: 1 });
  });

  it('counts a change once that two studies have written down', () => {
    const change = {
      change_id: 'c',
      machine_id: 'mr',
      at: '2026-03-11T07:40:00Z',
      kind: 'firmware',
      what: '1.9.2',
    };
    const one = smallStudy({ ...TWO_SIDES, machine_changes: [change] });
    const other = smallStudy({
      ...TWO_SIDES,
      machine_changes: [change, { ...change, change_id: 'd', kind: 'part' }],
    });
    const joined = joinedStudy([one, other].map((study) => ({ study, machineId: 'mr' })));
    expect(joined.tables.machine_changes.map((row) => row.change_id)).toEqual(['0:c', '1:d']);
  });

  it('leaves out what is about the other machines', () => {
    const joined = joinedStudy([{ study: given, machineId: 'mc' }]);
    expect(joined.tables.incidents).toEqual([]);
    expect(joined.tables.specimens).toEqual([]);
  });
});

describe('a record of work', () => {
  it('has the share of successes and the rate of incidents with their exact ends', () => {
    const prints = [
      print('1', 'R', { print_s: 3600 * 10 }),
      print('2', 'R', { outcome: 'failed', print_s: 3600 * 10, firmware: '1' }),
    ];
    const rows = smallStudy({ ...TWO_SIDES, prints }).tables.prints;
    const record = recordOf(rows, 3, '2');
    expect(record).toMatchObject({ prints: 2, good: 1, hours: 20, incidents: 3, outdated: 1 });
    // 1 of 2, and 3 events in 0.2 of 100 h, from published tables: 0.6187 and 8.7673 events.
    expect(record.success.low).toBeCloseTo(0.01258, 5);
    expect(record.per_100_h.low).toBeCloseTo(0.6187 / 0.2, 2);
    expect(record.per_100_h.high).toBeCloseTo(8.7673 / 0.2, 2);
  });
});
