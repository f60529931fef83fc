import { describe, expect, it } from 'vitest';
import { tableSpec, type TableName } from '../../model/study';
import { PART_DESIGNS, partRows, usualValues } from '.';

const madeOf = (key: string, more = {}) => {
  const design = PART_DESIGNS.find((one) => one.key === key);
  if (!design) throw new Error(key);
  return partRows(design.make({ ...usualValues(design), ...more }), 'own');
};

describe('what is looked at on a part, as rows', () => {
  it.each(PART_DESIGNS.map(({ key }) => key))('of the %s are rows of a study', (key) => {
    const rows = madeOf(key);
    for (const [table, own] of Object.entries(rows)) {
      const { row, key: columns } = tableSpec(table as TableName);
      const seen = new Set<string>();
      for (const each of own) {
        expect(row.safeParse(each).error, table).toBeUndefined();
        expect(each.artefact_id).toBe('own');
        const id = columns.map((column) => (each as Record<string, unknown>)[column]).join(' ');
        expect(seen, `${table}: ${id}`).not.toContain(id);
        seen.add(id);
      }
    }
    const total = Object.values(rows).reduce((sum, own) => sum + own.length, 0);
    expect(total).toBeGreaterThan(0);
  });

  it('a dimension stands between its two places, with limits on both sides', () => {
    const { dimensions, dimension_places } = madeOf('stair-block');
    expect(dimension_places.map((row) => row.dimension_id)).toEqual(
      dimensions.map((row) => row.dimension_id),
    );
    for (const [at, row] of dimensions.entries()) {
      expect(row.lower_tol_mm).toBe(-(row.upper_tol_mm ?? Number.NaN));
      const place = dimension_places[at];
      if (!place) throw new Error('a dimension without its place');
      const apart = Math.hypot(
        place.x2_mm - place.x1_mm,
        place.y2_mm - place.y1_mm,
        place.z2_mm - place.z1_mm,
      );
      // What is measured is as long as it is called, to what is built in of it.
      expect(apart, row.dimension_id).toBeCloseTo(row.nominal_mm, 6);
    }
  });

  it('steps of a ladder are numbered from 1, each with its place', () => {
    const { ladders, ladder_steps, ladder_places } = madeOf('ring-stack', { rings: 4 });
    expect(ladders).toHaveLength(1);
    expect(ladder_steps.map(({ step, value }) => [step, value])).toEqual([
      [1, 0.6],
      [2, 0.5],
      [3, 0.4],
      [4, 0.3],
    ]);
    expect(ladder_places.map(({ step }) => step)).toEqual([1, 2, 3, 4]);
    // From the core of 5 mm outwards: gap 0.6, half of the wall 2.4.
    expect(ladder_places[0]).toMatchObject({ x_mm: 6.8, y_mm: 0, z_mm: 6 });
  });

  it('zones are rectangles of a side, the right way round', () => {
    const rows = PART_DESIGNS.flatMap(({ key }) => madeOf(key).zone_places);
    expect(rows.length).toBeGreaterThan(0);
    for (const row of rows) {
      expect(row.u2_mm).toBeGreaterThan(row.u1_mm);
      expect(row.v2_mm).toBeGreaterThan(row.v1_mm);
    }
  });

  it('copies are numbered from 1', () => {
    const { copy_places } = madeOf('tile-field', { plate_x: 410, plate_y: 300 });
    expect(copy_places.map(({ copy }) => copy)).toEqual([1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12]);
  });
});
