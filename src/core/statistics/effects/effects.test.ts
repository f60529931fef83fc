import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { print, smallStudy } from '../../../../tests/support/small-study';
import { evaluate } from '../../answers/results';
import { typeTwo, type Observation } from '.';

const observed = (rows: readonly (readonly [string, string, string, number])[]): Observation[] =>
  rows.map(([machine, profile, artefact, value]) => ({ machine, profile, artefact, value }));

// Crampton 1947, length of odontoblasts of guinea pigs by supplement and dose: balanced, 10 a cell.
const GROWTH: Record<string, readonly number[]> = {
  'VC 0.5': [4.2, 11.5, 7.3, 5.8, 6.4, 10, 11.2, 11.2, 5.2, 7],
  'VC 1': [16.5, 16.5, 15.2, 17.3, 22.5, 17.3, 13.6, 14.5, 18.8, 15.5],
  'VC 2': [23.6, 18.5, 33.9, 25.5, 26.4, 32.5, 26.7, 21.5, 23.3, 29.5],
  'OJ 0.5': [15.2, 21.5, 17.6, 9.7, 14.5, 10, 8.2, 9.4, 16.5, 9.7],
  'OJ 1': [19.7, 23.3, 23.6, 26.4, 20, 25.2, 25.8, 21.2, 14.5, 27.3],
  'OJ 2': [25.5, 26.4, 22.4, 24.5, 24.8, 30.9, 26.4, 27.3, 29.4, 23],
};

// Unbalanced, with a block. Type II by nested models fitted with numpy.linalg.lstsq.
const UNEVEN = observed([
  ['A', 'stock', 'p', 3.1],
  ['A', 'stock', 'p', 3.4],
  ['A', 'stock', 'q', 2.2],
  ['A', 'tuned', 'p', 1.9],
  ['A', 'tuned', 'q', 1.4],
  ['A', 'tuned', 'q', 1.7],
  ['B', 'stock', 'p', 2],
  ['B', 'stock', 'q', 1.3],
  ['B', 'stock', 'q', 1.1],
  ['B', 'tuned', 'p', 1.8],
  ['B', 'tuned', 'p', 2.1],
  ['B', 'tuned', 'p', 1.7],
  ['B', 'tuned', 'q', 1.2],
  ['C', 'stock', 'p', 4],
  ['C', 'stock', 'q', 3.5],
  ['C', 'tuned', 'p', 3.9],
  ['C', 'tuned', 'q', 2.8],
  ['C', 'tuned', 'q', 3],
]);

describe('type II analysis of variance', () => {
  it('agrees with the published analysis of a balanced experiment', () => {
    const rows = Object.entries(GROWTH).flatMap(([cell, values]) => {
      const [profile = '', machine = ''] = cell.split(' ');
      return values.map((value) => [machine, profile, 'x', value] as const);
    });
    const found = typeTwo(observed(rows));
    expect(found.artefact).toBeNull();
    expect(found.profile).toMatchObject({ df: 1 });
    expect(found.profile.ss).toBeCloseTo(205.35, 2);
    expect(found.profile.f).toBeCloseTo(15.572, 3);
    expect(found.profile.p).toBeCloseTo(0.000231, 6);
    expect(found.machine).toMatchObject({ df: 2 });
    expect(found.machine.ss).toBeCloseTo(2426.43, 2);
    expect(found.machine.f).toBeCloseTo(92, 2);
    expect(found.interaction.ss).toBeCloseTo(108.32, 2);
    expect(found.interaction.f).toBeCloseTo(4.107, 3);
    expect(found.interaction.p).toBeCloseTo(0.02186, 5);
    expect(found.residual.df).toBe(54);
    expect(found.residual.ss).toBeCloseTo(712.11, 2);
  });

  it('of uneven cells with a block is each term over those that do not hold it', () => {
    const found = typeTwo(UNEVEN);
    expect(found.n).toBe(18);
    expect(found.artefact).toMatchObject({ df: 1 });
    expect(found.artefact?.ss).toBeCloseTo(2.122624113475, 10);
    expect(found.artefact?.f).toBeCloseTo(50.497584170565, 9);
    expect(found.machine.ss).toBeCloseTo(11.496593352884, 10);
    expect(found.machine.p).toBeCloseTo(1.698861033479e-8, 16);
    expect(found.machine.partial_omega2).toBeCloseTo(0.937825098486, 10);
    expect(found.profile.f).toBeCloseTo(23.366129081497, 9);
    expect(found.profile.partial_omega2).toBeCloseTo(0.554081592425, 10);
    expect(found.interaction).toMatchObject({ df: 2 });
    expect(found.interaction.ss).toBeCloseTo(0.616030760592, 10);
    expect(found.interaction.p).toBeCloseTo(0.009487885061, 10);
    expect(found.residual.df).toBe(11);
    expect(found.residual.ss).toBeCloseTo(0.462375886525, 10);
  });

  it('says the same however its rows are ordered, and of values moved or scaled', () => {
    const plain = typeTwo(UNEVEN);
    fc.assert(
      fc.property(
        fc.shuffledSubarray(UNEVEN, { minLength: UNEVEN.length }),
        fc.double({ min: -100, max: 100, noNaN: true }),
        fc.double({ min: 0.1, max: 10, noNaN: true }),
        (rows, shift, factor) => {
          const moved = rows.map((one) => ({ ...one, value: shift + factor * one.value }));
          const found = typeTwo(moved);
          expect(found.machine.f).toBeCloseTo(plain.machine.f ?? NaN, 6);
          expect(found.interaction.p).toBeCloseTo(plain.interaction.p ?? NaN, 8);
          expect(found.residual.ss / factor ** 2).toBeCloseTo(plain.residual.ss, 8);
        },
      ),
    );
  });

  it('has no test where nothing is repeated, or nothing scatters', () => {
    const cells = [
      ['A', 'stock', 'p', 1],
      ['A', 'tuned', 'p', 2],
      ['B', 'stock', 'p', 3],
      ['B', 'tuned', 'p', 5],
    ] as const;
    expect(typeTwo(observed(cells))).toMatchObject({
      machine: { df: 1, f: null, p: null, partial_omega2: null },
      residual: { df: 0, ss: 0 },
    });
    const twice = typeTwo(observed([...cells, ...cells]));
    expect(twice.residual).toEqual({ df: 4, ss: 0 });
    expect(twice.interaction).toMatchObject({ df: 1, f: null, p: null });
    expect(twice.interaction.ss).toBeCloseTo(0.5, 10);
  });
});

const HOUR = 3600;
/** Two machines with both profiles; tuning halves the time of A and does nothing to B. */
const crossed = (more: Record<string, unknown>[] = []) =>
  smallStudy(
    {
      machines: ['a', 'b', 'c'].map((id) => ({ machine_id: id, name: id })),
      profiles: [
        { profile_id: 's', name: 'Stock', kind: 'stock' },
        { profile_id: 't', name: 'Tuned', kind: 'tuned' },
      ],
      materials: [{ material_id: 'pla', type: 'PLA' }],
      contenders: ['A s a', 'AT t a', 'B s b', 'BT t b', 'C s c'].map((row) => {
        const [contender_id, profile_id, machine_id] = row.split(' ');
        return { contender_id, profile_id, machine_id, label: contender_id };
      }),
      artefacts: [{ artefact_id: 'part', name: 'Part' }],
      prints: [
        print('1', 'A', { print_s: 4 * HOUR }),
        print('2', 'A', { print_s: 4.2 * HOUR }),
        print('3', 'AT', { print_s: 2 * HOUR }),
        print('4', 'AT', { print_s: 2.1 * HOUR }),
        print('5', 'B', { print_s: 3 * HOUR }),
        print('6', 'B', { print_s: 3.1 * HOUR }),
        print('7', 'BT', { print_s: 3 * HOUR }),
        print('8', 'BT', { print_s: 3.1 * HOUR }),
        print('9', 'C', { print_s: HOUR }),
        ...more,
      ],
    },
    { reference: 'A', intent: 'crossed', smallest_difference: { time_pct: 20 } },
  );

describe('machine or profile', () => {
  it('leaves out a machine without one of the kinds, and gains what tuning saves', () => {
    const found = evaluate(crossed()).effects.ln_print_s;
    expect(found?.n).toBe(8);
    expect(found?.notes).toEqual(['c is left out: no print of a tuned profile']);
    expect(found?.analysed).toEqual(['a', 'b']);
    // It keeps its place in the picture.
    expect(found?.cells.c?.stock?.estimate).toBeCloseTo(Math.log(HOUR), 12);
    // ln 2 on A; nothing on B.
    expect(found?.gains?.AT?.estimate).toBeCloseTo(Math.LN2, 12);
    expect(found?.gains?.BT?.estimate).toBeCloseTo(0, 12);
    expect(found?.terms?.['machine:profile'].p).toBeLessThan(0.001);
    expect(found?.verdicts.AT).toMatchObject({ verdict: 'better', contender: 'AT' });
    expect(found?.verdicts.BT).toMatchObject({ verdict: 'indistinguishable' });
  });

  it('is without a response where its tables are absent', () => {
    const { ln_mae, surface_index } = evaluate(crossed()).effects;
    expect([ln_mae, surface_index]).toEqual([null, null]);
  });

  it('of one machine has its gain, and no analysis', () => {
    const study = crossed();
    study.tables.prints = study.tables.prints.filter((row) => /^[AC]/.test(row.contender_id));
    const found = evaluate(study).effects.ln_print_s;
    expect(found?.gains?.AT?.estimate).toBeCloseTo(Math.LN2, 12);
    expect(found).toMatchObject({ n: null, terms: null, residual: null });
    expect(found?.notes).toEqual([
      'kind tuned is left out: fewer than two machines have it',
      'fewer than two machines are there at two levels or more: no analysis',
    ]);
  });

  it('without a machine of both kinds has no analysis', () => {
    const study = crossed();
    study.tables.prints = study.tables.prints.filter((row) => row.contender_id === 'C');
    const found = evaluate(study).effects.ln_print_s;
    expect(found).toMatchObject({ n: null, gains: {}, terms: null, residual: null });
  });

  it('has a gain without an interval where each side is one print', () => {
    const study = crossed();
    study.tables.prints = study.tables.prints.filter((row) => /[1357]/.test(row.print_id));
    const found = evaluate(study).effects.ln_print_s;
    expect(found?.gains?.AT).toMatchObject({ low: null, high: null });
    expect(found?.notes).toContain('no print is repeated: there is no scatter to judge by');
  });

  it('counts artefacts as a block where there are several', () => {
    const more = ['A', 'AT', 'B', 'BT'].map((contender, at) =>
      print(`w${at}`, contender, { artefact_id: 'wall', print_s: (at + 1) * HOUR }),
    );
    const study = crossed(more);
    study.tables.artefacts.push({ ...study.tables.artefacts[0]!, artefact_id: 'wall' });
    expect(evaluate(study).effects.ln_print_s?.terms?.artefact?.df).toBe(1);
    expect(evaluate(crossed()).effects.ln_print_s?.terms).not.toHaveProperty('artefact');
  });

  it('gains each tuned contender against the stock that its own profile comes from', () => {
    const study = crossed([
      print('u1', 'AU', { print_s: 1 * HOUR }),
      print('u2', 'AU', { print_s: 1 * HOUR }),
      print('o1', 'AO', { print_s: 8 * HOUR }),
    ]);
    const { contenders, profiles } = study.tables;
    const [stock] = profiles;
    profiles.push({ ...stock!, profile_id: 'o' });
    profiles.push({ ...stock!, profile_id: 'u', kind: 'tuned', parent_id: 'o' });
    contenders.push({ ...contenders[0]!, contender_id: 'AO', profile_id: 'o' });
    contenders.push({ ...contenders[0]!, contender_id: 'AU', profile_id: 'u' });
    const found = evaluate(study).effects.ln_print_s;
    expect(found?.gains?.AU?.estimate).toBeCloseTo(Math.log(8), 12);
    // The other tuned one names no parent, and the machine has two stock contenders now.
    expect(found?.gains?.AT?.estimate).toBeNull();
    expect(found?.notes).toContain('a: A, AO are taken together as stock');
    expect(found?.gains?.BT?.estimate).toBeCloseTo(0, 12);
  });

  it('is crossed with what the study says: the slicing program, or the material', () => {
    const study = crossed();
    study.meta.factor = 'slicer';
    const [stock, tuned] = study.tables.profiles;
    Object.assign(stock!, { slicer: 'Strake' });
    Object.assign(tuned!, { slicer: 'Lathe' });
    const bySlicer = evaluate(study).effects.ln_print_s;
    expect(bySlicer).toMatchObject({
      factor: 'slicer',
      n: 8,
      gains: null,
      levels: ['Lathe', 'Strake'],
    });
    expect(bySlicer?.terms?.profile.p).toBeLessThan(0.01);
    Object.assign(tuned!, { slicer: null });
    expect(evaluate(study).effects.ln_print_s?.notes[0]).toBe(
      't is left out: its slicer is not known',
    );
    study.meta.factor = 'material';
    study.tables.materials.push({ ...study.tables.materials[0]!, material_id: 'x', type: 'PETG' });
    for (const row of study.tables.prints) {
      if (/^[3478]$/.test(row.print_id)) Object.assign(row, { material_id: 'x' });
    }
    const byMaterial = evaluate(study).effects.ln_print_s;
    expect(byMaterial).toMatchObject({ n: 8, levels: ['PETG', 'PLA'], analysed: ['a', 'b'] });
    // The material is the factor, not part of the block.
    expect(byMaterial?.terms).not.toHaveProperty('artefact');
  });
});
