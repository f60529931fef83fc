import { describe, expect, it } from 'vitest';
import type { PairRow } from '../../statistics/compare';
import type { CriterionEvidence } from '../scorecard';
import { glanceRows, orderedBy, type GlanceInput } from '.';

const known = (value: number, low: number | null = null, high: number | null = null) =>
  ({ value, low, high, z: 1.96, bound: null }) as CriterionEvidence;
const beyond = (bound: CriterionEvidence['bound']) =>
  ({ value: null, low: null, high: null, z: 0, bound }) as CriterionEvidence;
const row = (contender: string, verdict: PairRow['verdict'], prints_needed: number | null = null) =>
  ({ contender, verdict, prints_needed, on: ['part'] }) as unknown as PairRow;

const input = (more: Partial<GlanceInput> = {}): GlanceInput => ({
  contenders: ['A', 'B', 'C'],
  reference: 'A',
  classes: {},
  differences: {},
  smallest: {},
  criteria: {
    price: { A: known(289), B: known(649) },
    accuracy_mm: { A: known(0.08, 0.06, 0.1), B: known(0.02, 0.015, 0.025) },
    'limit:ring-stack/clearance': { A: beyond('fails'), B: known(0.25), C: known(0.3) },
    'panel:front': { A: known(0), B: beyond('above') },
    time_index: { A: known(1), B: known(0.42, 0.41, 0.43), C: known(1.14, 1.1, 1.2) },
  },
  names: {
    artefacts: { 'ring-stack': 'Ring stack' },
    ladders: {
      'ring-stack/clearance': { name: 'gap', unit: 'mm', isUpward: false, digits: 2 },
    },
    panels: { front: 'the front' },
    currency: 'EUR',
  },
  ...more,
});
const rowOf = (key: string, more: Partial<GlanceInput> = {}) => {
  const found = glanceRows(input(more)).find((one) => one.key === key);
  if (!found) throw new Error(`no row ${key}`);
  return found;
};

describe('everything at a glance', () => {
  it('stands group by group, only what has evidence', () => {
    expect(glanceRows(input()).map(({ key }) => key)).toEqual([
      'accuracy_mm',
      'panel:front',
      'limit:ring-stack/clearance',
      'time_index',
      'price',
    ]);
    expect(glanceRows(input({ criteria: {} }))).toEqual([]);
  });

  it('writes what is known, says what no number says, and leaves open what is not known', () => {
    const texts = (key: string) => rowOf(key).cells.map(({ text }) => text);
    expect(texts('accuracy_mm')).toEqual(['0.080', '0.020', null]);
    expect(texts('limit:ring-stack/clearance')).toEqual(['not the easiest', '0.25', '0.30']);
    expect(texts('panel:front')).toEqual(['0.00', 'above all', null]);
  });

  it('has the verdict of everyone but the reference', () => {
    const differences = { accuracy_mm: [row('A', 'worse'), row('B', 'unsettled', 4)] };
    const cells = rowOf('accuracy_mm', { differences }).cells;
    expect(cells.map(({ verdict }) => verdict)).toEqual([null, 'unsettled', null]);
    expect(cells[1]?.prints_needed).toBe(4);
  });

  it('has what people said who judged blind, where it is beyond doubt', () => {
    const said = (evidence: object) =>
      rowOf('panel:front', { criteria: { 'panel:front': { A: known(0), B: evidence as never } } })
        .cells.map(({ verdict }) => verdict)
        .slice(0, 2);
    expect(said({ ...known(0.8), low: 0.2, high: 1.4 })).toEqual([null, 'better']);
    expect(said({ ...known(-0.8), low: -1.4, high: -0.2 })).toEqual([null, 'worse']);
    expect(said({ ...known(0.8), low: -0.1, high: 1.7 })).toEqual([null, 'unsettled']);
    expect(said({ ...known(0.8), low: null, high: null })).toEqual([null, null]);
    expect(said(beyond('above'))).toEqual([null, 'better']);
  });

  it('bands what does not matter about the reference, of time as a ratio', () => {
    const smallest = { accuracy_mm: 0.03, time_pct: 25 };
    const [low, high] = rowOf('accuracy_mm', { smallest }).band ?? [];
    expect(low).toBeCloseTo(0.05, 12);
    expect(high).toBeCloseTo(0.11, 12);
    const ratio = rowOf('time_index', { smallest }).band ?? [];
    expect(ratio[0]).toBeCloseTo(0.8, 12);
    expect(ratio[1]).toBeCloseTo(1.25, 12);
    expect(rowOf('time_index', { smallest, reference: null }).band).toBeNull();
    expect(rowOf('time_index').band).toBeNull();
  });

  it('holds all values on its scale, and cuts an interval that is many times as wide', () => {
    const criteria = { accuracy_mm: { A: known(0.02, 0.01, 0.03), B: known(0.04, -5, 5) } };
    const { scale } = rowOf('accuracy_mm', { criteria });
    expect(scale[0]).toBeCloseTo(-0.01, 12);
    expect(scale[1]).toBeCloseTo(0.07, 12);
  });

  it('has a scale where all values are the same and no interval is known', () => {
    const same = { A: known(8, null, null), B: known(8, null, null) };
    const { scale } = rowOf('accuracy_mm', { criteria: { accuracy_mm: same } });
    expect(scale[0]).toBeCloseTo(7.2, 12);
    expect(scale[1]).toBeCloseTo(8.8, 12);
    const none = { A: known(0, null, null) };
    expect(rowOf('accuracy_mm', { criteria: { accuracy_mm: none } }).scale).toEqual([-1, 1]);
  });

  it('has tolerance classes as a row of their own', () => {
    const classes = { A: 'IT15', B: 'IT12', C: null };
    expect(rowOf('it_grade', { classes }).cells.map(({ text }) => text)).toEqual([
      'IT15',
      'IT12',
      null,
    ]);
    expect(orderedBy(rowOf('it_grade', { classes }))).toEqual(['B', 'A', 'C']);
  });

  it('orders contenders by a figure: the better first, the unknown last', () => {
    expect(orderedBy(rowOf('time_index'))).toEqual(['B', 'A', 'C']);
    expect(orderedBy(rowOf('limit:ring-stack/clearance'))).toEqual(['B', 'C', 'A']);
    const criteria = { surface: { A: known(60), C: known(90) } };
    expect(orderedBy(rowOf('surface', { criteria }))).toEqual(['C', 'A', 'B']);
  });
});
