import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addressesIn, figureAt, type ReportedResults } from '.';
import { addressOfCriterion, addressOfDifference, addressOnPage } from './named';
import { namedFigure } from './named-figure';

const interval = { estimate: 0.08, low: 0.06, high: 0.1 };

/** Results with no more in them than the addresses below ask for. */
const results = {
  study: { name: 's', title: 'S', intent: 'machines', reference: 'R', alpha: 0.05, seed: 1 },
  accuracy: {
    'A.1': { mae_mm: interval, it_grade: 'IT12', by_axis: { x: { n: 4, mae_mm: 0.07 } } },
    R: { mae_mm: { estimate: null, low: null, high: null }, it_grade: null },
  },
  pairs: {
    accuracy_mm: [
      { contender: 'A.1', difference: { estimate: -0.06, low: -0.08, high: -0.04 }, verdict: 'better' },
    ],
    surface: null,
    ln_print_s: [],
  },
  differences: {
    'photo:wall/ringing/flat': [
      { contender: 'A.1', difference: { estimate: 0.01, low: null, high: null }, verdict: 'one_print' },
    ],
  },
  criteria: { 'panel:front': { 'A.1': { value: null, low: null, high: null, z: 0, bound: 'above' } } },
  ladders: { 'A.1': { 'ring.stack/gap.mm': { limit: 0.3, by_step: [] } } },
  modes: { 'A.1': [{ mode: 'loose-strands', count: 3 }] },
  fairness: [{ contender: 'A.1', reference: 'R', artefact_id: 'wall', result: 'noted', sentence: '' }],
  scorecard: {
    contenders: { 'A.1': { score: { low: 40, high: 55 }, in: true, first_place_share: 0.75 } },
    doubt: { weights: 0.1 },
  },
  effects: { ln_mae: { terms: { machine: { p: 0.01 } }, gain: { auklet: interval } } },
} as unknown as ReportedResults; // prettier-ignore

const at = (address: string) => figureAt(results, address);

describe('the figure at an address', () => {
  it.each([
    ['accuracy:A.1:mae_mm', { value: 0.08, low: 0.06, high: 0.1, word: null }],
    ['accuracy:A.1:by_axis.x.mae_mm', { value: 0.07, low: null, high: null, word: null }],
    ['accuracy:A.1:it_grade', { value: null, low: null, high: null, word: 'IT12' }],
    ['accuracy:R:it_grade', { value: null, low: null, high: null, word: null }],
    ['pairs:A.1:accuracy_mm', { value: -0.06, low: -0.08, high: -0.04, word: 'better' }],
    [
      'differences:A.1:photo:wall/ringing/flat',
      { value: 0.01, low: null, high: null, word: 'one_print' },
    ],
    ['criteria:A.1:panel:front', { value: null, low: null, high: null, word: 'above' }],
    ['ladders:A.1:ring.stack/gap.mm.limit', { value: 0.3, low: null, high: null, word: null }],
    ['modes:A.1:loose-strands.count', { value: 3, low: null, high: null, word: null }],
    ['fairness:A.1:wall', { value: null, low: null, high: null, word: 'noted' }],
    ['scorecard:A.1:score', { value: null, low: 40, high: 55, word: null }],
    ['scorecard:A.1:first_place_share', { value: 0.75, low: null, high: null, word: null }],
    ['scorecard:A.1:in', { value: null, low: null, high: null, word: 'yes' }],
    ['scorecard:doubt:weights', { value: 0.1, low: null, high: null, word: null }],
    ['effects:ln_mae:terms.machine.p', { value: 0.01, low: null, high: null, word: null }],
    ['effects:ln_mae:gain.auklet', { value: 0.08, low: 0.06, high: 0.1, word: null }],
  ])('%s', (address, found) => expect(at(address)).toEqual(found));

  it.each([
    ...['', 'accuracy', 'accuracy:A.1', 'accuracy:A.1:', 'accuracy:B:mae_mm', 'study:name:x'],
    ...['accuracy:A.1:nothing', 'accuracy:A.1:by_axis', 'accuracy:__proto__:constructor'],
    ...['constructor:name:x', 'pairs:A.1:surface', 'pairs:R:accuracy_mm', 'fairness:A.1:stair'],
  ])('is none at “%s”', (address) => expect(at(address)).toBeNull());

  it('asks nothing of anything that is no address', () => {
    fc.assert(fc.property(fc.string(), (text) => at(text) === null || text.includes(':')));
  });
});

describe('addresses', () => {
  it('are found among the words of an evidence', () => {
    expect(addressesIn('see accuracy:A:mae_mm and  pairs:B:surface, page 3:')).toEqual([
      ...['accuracy:A:mae_mm', 'pairs:B:surface,'],
    ]);
    expect(addressesIn(null)).toEqual([]);
  });

  it('of criteria lead to where a section says them, and back', () => {
    for (const key of [
      ...['accuracy_mm', 'surface', 'time_index', 'success', 'standstill', 'waste_share'],
      ...['limit:ring-stack/gap', 'photo:wall/ringing/flat', 'cost_index', 'works:ring/turns'],
    ]) {
      const address = addressOfCriterion(key, 'A', 'auklet');
      expect(namedFigure(address), address).toMatchObject({ criterion: key, who: 'A' });
    }
    expect(addressOfCriterion('noise_db', 'A', 'auklet')).toBe('noise:auklet:printing.at_1m_db');
    expect(addressOfCriterion('noise_db', 'A', null)).toBe('criteria:A:noise_db');
    expect(namedFigure('pairs:A:ln_print_s')).toMatchObject({
      ...{ criterion: 'time_index', isDifference: true },
    });
    expect(addressOfDifference('success', 'A')).toBe('differences:A:success');
    expect(namedFigure('accuracy:A:by_axis.x.mae_mm')).toBeNull();
  });

  it('of figures on pages', () => {
    expect(addressOnPage('pair/A')).toBe('pairs:A:accuracy_mm');
    expect(addressOnPage('speed/A/stair-block')).toBe(
      'speed:A:by_artefact.stair-block.median_print_s',
    );
    expect(addressOnPage('group/A/x')).toBe('accuracy:A:by_axis.x.mae_mm');
    for (const none of ['zone/A/wall:front', 'group/A/hole', 'fit/A', 'cost/A', 'pair', '']) {
      expect(addressOnPage(none)).toBeNull();
    }
  });
});
