import fc from 'fast-check';
import Module from 'manifold-3d';
import { beforeAll, describe, expect, it } from 'vitest';
import { drawableOf, factsOfMesh, measuringPlaces, writeStl, type MeshFacts } from '../mesh';
import { ladderRow } from '../../model/study/rows/artefacts';
import {
  faultsOf,
  PART_DESIGNS,
  realise,
  usualValues,
  type Kernel,
  type PartDesign,
} from './index';

let kernel: Kernel;
beforeAll(async () => {
  const modeller = await Module();
  modeller.setup();
  kernel = modeller;
});

const design = (key: string): PartDesign => {
  const found = PART_DESIGNS.find((one) => one.key === key);
  if (!found) throw new Error(`no part ${key}`);
  return found;
};
const madeOf = (key: string, more: Record<string, number> = {}) => {
  const part = design(key).make({ ...usualValues(design(key)), ...more });
  return { part, soup: realise(kernel, part.solid) };
};
const factsOf = (key: string, more: Record<string, number> = {}): MeshFacts =>
  factsOfMesh(writeStl(madeOf(key, more).soup), 'part.stl');

describe('parts made by numbers', () => {
  it.each(PART_DESIGNS.map(({ key }) => key))('%s is a closed solid on the plate', (key) => {
    const facts = factsOf(key);
    expect(facts.watertight).toBe(true);
    expect(facts.bbox_mm.min[2]).toBe(0);
    expect(facts.notes).toEqual([]);
    expect(faultsOf(design(key), usualValues(design(key)))).toEqual([]);
  });

  it('whatever numbers are allowed make one, with every dimension on its surface', () => {
    const numbers = (one: PartDesign) =>
      fc.record(
        Object.fromEntries(
          one.parameters.map(({ key, lowest, highest, step }) => [
            key,
            fc
              .integer({ min: 0, max: Math.round((highest - lowest) / step) })
              .map((count) => lowest + count * step),
          ]),
        ),
      );
    const choice = fc
      .constantFrom(...PART_DESIGNS)
      .chain((one) => numbers(one).map((values) => ({ one, values })));
    fc.assert(
      fc.property(choice, ({ one, values }) => {
        fc.pre(faultsOf(one, values).length === 0);
        const part = one.make(values);
        const facts = factsOfMesh(writeStl(realise(kernel, part.solid)), 'part.stl');
        expect(facts.watertight).toBe(true);
        const { min, max } = facts.bbox_mm;
        for (const { from, to, nominal_mm } of part.dimensions) {
          expect(Math.hypot(...to.map((value, at) => value - (from[at] ?? 0)))).toBeCloseTo(
            nominal_mm,
            3,
          );
          for (const end of [from, to]) {
            end.forEach((value, at) => {
              expect(value).toBeGreaterThanOrEqual((min[at] ?? 0) - 0.01);
              expect(value).toBeLessThanOrEqual((max[at] ?? 0) + 0.01);
            });
          }
        }
        const ids = part.dimensions.map(({ id }) => id);
        expect(new Set(ids).size).toBe(ids.length);
      }),
      { numRuns: 40 },
    );
  });

  it('the stair block has the volume that its steps, holes and bosses leave', () => {
    const circle = (d: number) => (Math.PI * d * d) / 4;
    const stairs = 30 * 8 * (80 + 60 + 40) + 18 * 8 * 20;
    const holes = circle(8) * 8 + circle(6) * 16 + circle(5) * 24 + 64 * 8;
    const bosses = 6 * (circle(10) + circle(6));
    const facts = factsOf('stair-block');
    // Round things are polygons of at least 72 corners: their area is 0.13 % small.
    expect(Math.abs((facts.volume_mm3 ?? 0) - (stairs - holes + bosses))).toBeLessThan(3);
    expect(facts.bbox_mm.size).toEqual([80, 30, 32]);
  });

  it('a hole measured on the mesh has its nominal size', () => {
    const { part, soup } = madeOf('stair-block');
    const rounds = measuringPlaces(drawableOf(soup)).rounds;
    for (const { id, nominal_mm, kind, from, to } of part.dimensions) {
      if (kind !== 'hole' && kind !== 'boss') continue;
      const middle = from.map((value, at) => (value + (to[at] ?? 0)) / 2);
      const found = rounds.find(
        ({ centre, isHole }) =>
          isHole === (kind === 'hole') &&
          Math.hypot(centre[0] - (middle[0] ?? 0), centre[1] - (middle[1] ?? 0)) < 0.01,
      );
      expect(found?.diameter, id).toBeCloseTo(nominal_mm, 3);
    }
  });

  it('the rings are as many pieces as there are, each with its clearance', () => {
    const { part, soup } = madeOf('ring-stack');
    expect(factsOf('ring-stack').shells).toBe(8);
    const rounds = measuringPlaces(drawableOf(soup))
      .rounds.map(({ diameter }) => diameter)
      .sort((a, b) => a - b);
    const gaps = part.ladders[0]?.steps.map(({ value }) => value) ?? [];
    const found = gaps.map((_, at) => ((rounds[2 * at + 1] ?? 0) - (rounds[2 * at] ?? 0)) / 2);
    gaps.forEach((gap, at) => expect(found[at]).toBeCloseTo(gap, 3));
  });

  it('the tiles lie within the plate, apart from each other', () => {
    const { part } = madeOf('tile-field', { plate_x: 410, plate_y: 300 });
    expect(part.copies).toHaveLength(12);
    expect(factsOf('tile-field', { plate_x: 410, plate_y: 300 })).toMatchObject({
      shells: 12,
      bbox_mm: { size: [370, 260, 4] },
    });
  });

  it('says which numbers do not go together', () => {
    const stairs = design('stair-block');
    const usual = usualValues(stairs);
    expect(faultsOf(stairs, { ...usual, hole: 12 })[0]).toContain('longer block');
    expect(faultsOf(stairs, { ...usual, length: 5 })).toEqual(['length: between 60 and 200 mm']);
    expect(faultsOf(stairs, { ...usual, steps: 4.5 })).toEqual([
      'steps: a whole number between 4 and 8',
    ]);
    const tiles = design('tile-field');
    expect(faultsOf(tiles, { ...usualValues(tiles), plate_x: 150 })[0]).toContain('along x');
  });

  it('ladders are of kinds that a study knows', () => {
    for (const one of PART_DESIGNS) {
      for (const { id, name, quantity, unit } of one.make(usualValues(one)).ladders) {
        const row = { artefact_id: one.key, ladder_id: id, name, quantity, unit };
        expect(ladderRow().safeParse(row).success).toBe(true);
      }
    }
  });
});
