import { describe, expect, it } from 'vitest';
import { print, smallStudy, TWO_SIDES } from '../../../../tests/support/small-study';
import { evaluate } from '../../answers/results';
import { indexStudy } from '../../model/study';
import { byPlace, driversOf, instrumentsOfAll, measure } from './index';

const PLACES = [
  ['left', -50, 0],
  ['right', 50, 0],
] as const;

/** R: a is 0.10 too large, b 0.02 too small. C: a is 0.04 too large, b 0.05 too small at the right. */
const VALUES: Record<string, Record<string, readonly [number, number]>> = {
  R: { a: [20.1, 20.1], b: [9.98, 9.98] },
  C: { a: [20.04, 20.04], b: [9.98, 9.95] },
};

const study = (more: Parameters<typeof smallStudy>[0] = {}) =>
  smallStudy(
    {
      ...TWO_SIDES,
      dimensions: ['a', 'b'].map((dimension_id) => ({
        artefact_id: 'part',
        dimension_id,
        name: dimension_id,
        axis: 'x',
        kind: 'external',
        nominal_mm: dimension_id === 'a' ? 20 : 10,
      })),
      prints: [print('pr', 'R'), print('pc', 'C')],
      specimens: ['R', 'C'].flatMap((side) =>
        PLACES.map(([name, plate_x_mm, plate_y_mm]) => ({
          specimen_id: `${side}-${name}`,
          print_id: `p${side.toLowerCase()}`,
          plate_x_mm,
          plate_y_mm,
        })),
      ),
      instruments: [
        { instrument_id: 'caliper', name: 'Caliper' },
        { instrument_id: 'unused', name: 'Unused' },
      ],
      readings: Object.entries(VALUES).flatMap(([side, own]) =>
        Object.entries(own).flatMap(([dimension_id, values]) =>
          PLACES.flatMap(([name], at) =>
            // The second reading of a place is 0.02 above the first: s = 0.02/√2 each.
            [-0.01, 0.01].map((shift, trial) => ({
              specimen_id: `${side}-${name}`,
              dimension_id,
              trial: trial + 1,
              value_mm: (values[at] ?? 0) + shift,
              instrument_id: 'caliper',
            })),
          ),
        ),
      ),
      ...more,
    },
    { intent: 'before-after' },
  );

const measured = (given = study()) => measure(indexStudy(given));

describe('which dimensions drive a difference', () => {
  it('each adds its share, and the shares add up to the difference', () => {
    const drivers = driversOf(measured(), 'C', 'R');
    // |e|: a 0.04 against 0.10; b (0.02 + 0.05)/2 against 0.02; two dimensions, one artefact.
    expect(drivers.map((one) => one.dimension_id)).toEqual(['a', 'b']);
    expect(drivers[0]).toMatchObject({
      contender_mm: expect.closeTo(0.04, 9),
      reference_mm: expect.closeTo(0.1, 9),
      share_mm: expect.closeTo(-0.03, 9),
    });
    expect(drivers[1]?.share_mm).toBeCloseTo(0.0075, 9);
    const difference = evaluate(study()).pairs.accuracy_mm?.[0]?.difference.estimate;
    expect(difference).toBeCloseTo(-0.03 + 0.0075, 9);
  });

  it('place by place, contender less reference', () => {
    const places = byPlace(measured(), 'C', 'R');
    expect(places['part/b']).toEqual([
      {
        x_mm: -50,
        y_mm: 0,
        contender_mm: expect.closeTo(-0.02, 9),
        reference_mm: expect.closeTo(-0.02, 9),
        difference_mm: expect.closeTo(0, 9),
      },
      expect.objectContaining({ x_mm: 50, difference_mm: expect.closeTo(-0.03, 9) }),
    ]);
  });

  it('what an instrument repeats is pooled over the places that it read twice', () => {
    expect(instrumentsOfAll(indexStudy(study()), measured())).toEqual({
      caliper: {
        readings: 16,
        repeated: 8,
        repeatability_mm: expect.closeTo(0.02 / Math.SQRT2, 9),
      },
      unused: { readings: 0, repeated: 0, repeatability_mm: null },
    });
  });
});

describe('a retired dimension', () => {
  it('leaves the results; its readings stay', () => {
    const retired = study({
      retired_dimensions: [{ artefact_id: 'part', dimension_id: 'b' }],
    });
    expect(retired.tables.readings).toHaveLength(16);
    const { accuracy } = evaluate(retired);
    expect(accuracy?.C).toMatchObject({ dimensions: 1, readings: 4 });
    expect(accuracy?.C?.mae_mm.estimate).toBeCloseTo(0.04, 9);
  });
});
