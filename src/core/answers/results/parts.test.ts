import { beforeAll, describe, expect, it } from 'vitest';
import { smallStudy, TWO_SIDES, print } from '../../../../tests/support/small-study';
import { openContext, partsOf } from './index';
import type { Results } from './results';

let accuracy: Results['accuracy'];
let fairness: Results['fairness'];

beforeAll(() => {
  const study = smallStudy({
    ...TWO_SIDES,
    dimensions: [
      {
        artefact_id: 'part',
        dimension_id: 'x1',
        name: 'x1',
        axis: 'x',
        kind: 'external',
        nominal_mm: 20,
      },
    ],
    prints: [print('p1', 'R', { firmware: '1' }), print('p2', 'C', { firmware: '2', plate: 'b' })],
    specimens: [
      { specimen_id: 's1', print_id: 'p1' },
      { specimen_id: 's2', print_id: 'p2' },
    ],
    readings: [
      { specimen_id: 's1', dimension_id: 'x1', trial: 1, value_mm: 20.1 },
      { specimen_id: 's2', dimension_id: 'x1', trial: 1, value_mm: 19.9 },
    ],
    accepted_differences: [
      {
        contender_id: 'C',
        reference_id: 'R',
        artefact_id: 'part',
        item: 'firmware',
        reason: 'the same lot',
        operator: 'lk',
      },
    ],
  });
  const context = openContext(study);
  accuracy = context.resultOf('accuracy');
  fairness = context.resultOf('fairness');
});

describe('results in the parts in which they are kept', () => {
  it('accuracy goes apart into its summary and what each specimen deviates', () => {
    const parts = partsOf('accuracy', accuracy);
    expect(Object.keys(parts).sort()).toEqual(['accuracy', 'deviations']);
    expect(parts.accuracy?.R).not.toHaveProperty('cells');
    for (const [contender, { cells, ...summary }] of Object.entries(accuracy ?? {})) {
      expect(parts.accuracy?.[contender]).toEqual(summary);
      const own = parts.deviations?.[contender] ?? {};
      const told = Object.entries(own).flatMap(([dimension_id, { specimens, deviations_mm }]) =>
        specimens.map((id, at) => `${id} ${dimension_id} ${deviations_mm[at]}`),
      );
      const known = cells.map(
        (one) => `${one.specimen_id} ${one.dimension_id} ${one.deviation_mm}`,
      );
      expect(told.sort()).toEqual(known.sort());
    }
    expect(Object.keys(parts.deviations?.R ?? {})).toHaveLength(1);
  });

  it('fairness keeps beside its items which of them were accepted, by whom and why', () => {
    const parts = partsOf('fairness', fairness);
    expect(parts.fairness_items).toBe(fairness);
    const [summary] = parts.fairness ?? [];
    expect(summary).not.toHaveProperty('items');
    expect(summary?.accepted).toEqual([
      expect.objectContaining({ item: 'firmware', reason: 'the same lot', operator: 'lk' }),
    ]);
  });

  it('what is not known stays so in every part', () => {
    expect(partsOf('accuracy', null)).toEqual({ accuracy: null, deviations: null });
  });

  it('any other section is one part of its name', () => {
    expect(partsOf('noise', null)).toEqual({ noise: null });
  });
});
