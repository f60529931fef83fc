import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { print, smallStudy, TWO_SIDES } from '../../../../tests/support/small-study';
import {
  detectableDifference,
  lotStocks,
  pooledScatter,
  runOrder,
  successesInARow,
  USUAL_ORDER,
} from './index';

const planned = (contender_id: string, artefact_id: string, repeats: number, material = 'pla') => ({
  contender_id,
  artefact_id,
  material_id: material,
  repeats,
  toolpath: null,
});

const PLAN = [
  planned('A', 'block', 2),
  planned('B', 'block', 3),
  planned('A', 'tile', 1),
  planned('A', 'block', 1, 'petg'),
];

const cell = (one: { contender_id: string; artefact_id: string; repeat: number }) =>
  `${one.contender_id} ${one.artefact_id} ${one.repeat}`;

describe('run order', () => {
  it.each(['repeat', 'lot', 'day'] as const)('by %s holds every print once', (block_by) => {
    fc.assert(
      fc.property(fc.nat(1e6), fc.integer({ min: 1, max: 9 }), (seed, prints_per_day) => {
        const order = runOrder(PLAN, { seed, block_by, prints_per_day });
        expect(order.map(cell).sort()).toEqual([
          'A block 1',
          'A block 2',
          'A block 3',
          'A tile 1',
          'B block 1',
          'B block 2',
          'B block 3',
        ]);
        expect(order.map((one) => one.block)).toEqual(
          order.map((one) => one.block).sort((a, b) => a - b),
        );
      }),
    );
  });

  it('is the same for the same seed and another for another', () => {
    const many = ['A', 'B', 'C', 'D'].map((id) => planned(id, 'block', 5));
    const order = (seed: number) => runOrder(many, { ...USUAL_ORDER, seed }).map(cell);
    expect(order(7)).toEqual(order(7));
    expect(order(7)).not.toEqual(order(8));
  });

  it('a block by repeat holds each contender’s repeat of that number', () => {
    for (const one of runOrder(PLAN, USUAL_ORDER)) expect(one.repeat).toBe(one.block);
  });

  it('a block by lot holds one lot', () => {
    const order = runOrder(PLAN, { ...USUAL_ORDER, block_by: 'lot' });
    expect(order.filter((one) => one.block === 1).every((one) => one.material_id === 'pla')).toBe(
      true,
    );
    expect(order.at(-1)).toMatchObject({ material_id: 'petg', repeat: 3, block: 2 });
  });
});

describe('how many prints', () => {
  it('in a row, as tables of zero-failure test plans give it', () => {
    // 95 % confidence: 59 for 95 %, 29 for 90 %, 299 for 99 %; 90 % confidence: 22 for 90 %.
    expect(successesInARow(0.95, 0.95)).toBe(59);
    expect(successesInARow(0.9, 0.95)).toBe(29);
    expect(successesInARow(0.99, 0.95)).toBe(299);
    expect(successesInARow(0.9, 0.9)).toBe(22);
    // Where the power is exact there is no print more: 0.5^2 = 0.25.
    expect(successesInARow(0.5, 0.75)).toBe(2);
  });

  it('the difference that is found, from the t table', () => {
    // F = 1, n = 6: ν = 10, t(0.975) = 2.228, t(0.8) = 0.879; √(2/6) = 0.57735.
    const found = detectableDifference({ variance: 1, df: 10, artefacts: 1 }, 6, 0.05);
    expect(found).toBeCloseTo(0.57735 * (2.228 + 0.879), 3);
  });

  it('scatter is pooled within contender and artefact', () => {
    const scatter = pooledScatter([
      new Map([
        ['a', [1, 3]],
        ['b', [10]],
      ]),
      new Map([['a', [5, 6, 7]]]),
      new Map(),
    ]);
    // Squares 2 + 0 + 2 over 1 + 0 + 2 degrees of freedom.
    expect(scatter).toEqual({ variance: 4 / 3, df: 3, artefacts: 2 });
    expect(pooledScatter([new Map([['a', [1]]])])).toBeNull();
  });
});

describe('stock of a lot', () => {
  const { tables } = smallStudy({
    ...TWO_SIDES,
    spools: [
      { spool_id: 's1', material_id: 'pla', mass_g: 1000 },
      { spool_id: 's2', material_id: 'pla', mass_g: 750 },
    ],
    prints: [
      print('p1', 'C', { filament_g: 40, filament_from: 'weighed' }),
      print('p2', 'C', { repeat: 2, filament_g: 9, filament_from: 'file' }),
    ],
    planned: [planned('C', 'part', 5), planned('R', 'part', 2)],
  });

  it('is what was bought less what was used, against what is owed', () => {
    const [lot] = lotStocks(tables, (contender) => (contender === 'C' ? 41 : null));
    expect(lot).toEqual({
      material_id: 'pla',
      bought_g: 1750,
      used_g: 49,
      not_weighed_g: 9,
      left_g: 1701,
      needed_g: 3 * 41,
      unknown: 2,
    });
  });

  it('is not known without spools', () => {
    const [lot] = lotStocks({ ...tables, spools: [] }, () => 41);
    expect(lot).toMatchObject({ bought_g: null, left_g: null });
  });
});
