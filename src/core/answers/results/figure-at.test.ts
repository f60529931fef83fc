import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { figureAt, type ReportedResults } from '.';

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
      {
        contender: 'A.1',
        difference: { estimate: -0.06, low: -0.08, high: -0.04 },
        verdict: 'better',
      },
    ],
    surface: null,
    ln_print_s: [],
  },
  differences: {
    'photo:wall/ringing/flat': [
      {
        contender: 'A.1',
        difference: { estimate: 0.01, low: null, high: null },
        verdict: 'one_print',
      },
    ],
  },
  criteria: {
    'panel:front': { 'A.1': { value: null, low: null, high: null, z: 0, bound: 'above' } },
  },
  ladders: { 'A.1': { 'ring.stack/gap.mm': { limit: 0.3, by_step: [] } } },
  modes: { 'A.1': [{ mode: 'loose-strands', count: 3 }] },
  fairness: [
    { contender: 'A.1', reference: 'R', artefact_id: 'wall', result: 'noted', sentence: '' },
  ],
  scorecard: {
    contenders: { 'A.1': { score: { low: 40, high: 55 }, in: true, first_place_share: 0.75 } },
    doubt: { weights: 0.1 },
  },
  effects: { ln_mae: { terms: { machine: { p: 0.01 } }, gain: { auklet: interval } } },
} as unknown as ReportedResults;

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
    '',
    'accuracy',
    'accuracy:A.1',
    'accuracy:A.1:',
    'accuracy:B:mae_mm',
    'study:name:x',
    'accuracy:A.1:nothing',
    'accuracy:A.1:by_axis',
    'accuracy:__proto__:constructor',
    'constructor:name:x',
    'pairs:A.1:surface',
    'pairs:R:accuracy_mm',
    'fairness:A.1:stair',
  ])('is none at “%s”', (address) => expect(at(address)).toBeNull());

  it('asks nothing of anything that is no address', () => {
    fc.assert(fc.property(fc.string(), (text) => at(text) === null || text.includes(':')));
  });
});
