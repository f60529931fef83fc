import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { boxSoup, cylinderTriangles, soupOf } from '../../../../tests/support/meshes';
import {
  drawableOf,
  drawFrom,
  factsOfMesh,
  measuringPlaces,
  proposeCorners,
  proposePair,
  proposeRound,
  sameVertices,
  sectionAt,
  viewFrom,
  VIEWS,
  writeStl,
  writeThreeMf,
  type MeasuringPlaces,
} from './index';

const block = boxSoup([0, 0, 0], [80, 30, 32]);
/** A high block behind a low one. */
const steps = soupOf([
  ...boxSoup.triangles([0, 0, 0], [20, 10, 10]),
  ...boxSoup.triangles([0, 20, 0], [20, 10, 30]),
]);

/** Corners of a path, and how many strokes it has. */
const corners = (path: string) =>
  [...path.matchAll(/(-?[\d.]+) (-?[\d.]+)/g)].map(([, x, y]) => [Number(x), Number(y)]);

describe('a drawing', () => {
  it('of a block is its outline, from every side', () => {
    const drawable = drawableOf(block);
    expect(drawFrom(drawable, VIEWS.front)).toEqual({
      visible: 'M0 -32L0 0L80 0L80 -32Z',
      hidden: '',
      box: { left: 0, top: -32, width: 80, height: 32 },
    });
    expect(drawFrom(drawable, VIEWS.top).visible).toBe('M0 -30L0 0L80 0L80 -30Z');
    // Seen from the left side, what is in front lies on the right.
    expect(drawFrom(drawable, VIEWS.left).box).toMatchObject({ left: -30, width: 30 });
    expect(drawFrom(drawable, VIEWS.right).box).toMatchObject({ left: 0, width: 30 });
  });

  it('tells apart what a nearer face hides', () => {
    const front = drawFrom(drawableOf(steps), VIEWS.front);
    expect(front.visible).toContain('M0 -10L20 -10');
    expect(front.hidden).toBe('');
    const back = drawFrom(drawableOf(steps), VIEWS.back);
    // The low block stands behind the high one: its top edge is hidden from one side to the other.
    expect(back.hidden).toBe('M-20 -10L0 -10');
    expect(back.visible).not.toContain(' -10');
  });

  it('shows the outline of what is round, but no lines along it', () => {
    const drawable = drawableOf(soupOf(cylinderTriangles(10, 25, 90)));
    const front = drawFrom(drawable, VIEWS.front);
    expect(front.visible).toBe('M-10 -25L-10 0L10 0L10 -25Z');
    const above = corners(drawFrom(drawable, VIEWS.top).visible);
    expect(above).toHaveLength(90);
    for (const [x, y] of above) expect(Math.hypot(x ?? 0, y ?? 0)).toBeCloseTo(10, 1);
  });

  it('is the same whatever the order of the triangles', () => {
    const triangles = boxSoup.triangles([0, 0, 0], [20, 10, 10]);
    const drawn = drawFrom(drawableOf(soupOf(triangles)), viewFrom(30, 25)).visible;
    fc.assert(
      fc.property(fc.shuffledSubarray(triangles, { minLength: 12 }), (shuffled) => {
        expect(drawFrom(drawableOf(soupOf(shuffled)), viewFrom(30, 25)).visible).toBe(drawn);
      }),
      { numRuns: 20 },
    );
  });

  it('from an upper corner shows nine edges of a block and hides three', () => {
    const seen = drawFrom(drawableOf(block), viewFrom(30, 30));
    const lengthOf = (path: string) =>
      path
        .split('M')
        .filter(Boolean)
        .reduce((sum, stroke) => {
          const points = corners(stroke);
          const closed = stroke.endsWith('Z') ? [...points, points[0] ?? []] : points;
          return closed
            .slice(1)
            .reduce(
              (length, [x = 0, y = 0], at) =>
                length + Math.hypot(x - (closed[at]?.[0] ?? 0), y - (closed[at]?.[1] ?? 0)),
              sum,
            );
        }, 0);
    // Edges along x, y and z shorten by the view's angles.
    const [a, e] = [Math.PI / 6, Math.PI / 6];
    const along = [
      80 * Math.hypot(Math.cos(a), Math.sin(a) * Math.sin(e)),
      30 * Math.hypot(Math.sin(a), Math.cos(a) * Math.sin(e)),
      32 * Math.cos(e),
    ].reduce((sum, one) => sum + one);
    expect(lengthOf(seen.visible)).toBeCloseTo(3 * along, 0);
    expect(lengthOf(seen.hidden)).toBeCloseTo(along, 0);
  });
});

describe('a section', () => {
  it('is the outline at a height, and empty beside the part', () => {
    expect(sectionAt(steps, 5)).toBe('M0 -30L0 -20L20 -20L20 -30ZM0 -10L0 0L20 0L20 -10Z');
    expect(sectionAt(steps, 20)).toBe('M0 -30L0 -20L20 -20L20 -30Z');
    expect(sectionAt(steps, 31)).toBe('');
  });
});

describe('what can be measured', () => {
  const found = measuringPlaces(drawableOf(steps));
  const face = (places: MeasuringPlaces, axis: 0 | 1 | 2, sign: 1 | -1, offset: number) => {
    const one = places.faces.find(
      ({ normal, offset: at }) => normal[axis] === sign && Math.abs(at - offset) < 1e-9,
    );
    if (!one) throw new Error('no such face');
    return one;
  };

  it('is every flat face once, whatever it is cut into', () => {
    expect(found.faces).toHaveLength(12);
    expect(found.rounds).toEqual([]);
    expect(found.corners).toHaveLength(16);
  });

  it('proposes lengths, gaps and heights from pairs of faces', () => {
    expect(proposePair(face(found, 0, -1, -0), face(found, 0, 1, 20))).toMatchObject({
      axis: 'x',
      kind: 'external',
      nominal_mm: 20,
    });
    expect(proposePair(face(found, 1, 1, 10), face(found, 1, -1, -20))).toMatchObject({
      axis: 'y',
      kind: 'internal',
      nominal_mm: 10,
      from: [10, 20, 5],
      to: [10, 10, 5],
    });
    expect(proposePair(face(found, 2, 1, 10), face(found, 2, 1, 30))).toMatchObject({
      axis: 'z',
      kind: 'height',
      nominal_mm: 20,
      note: null,
    });
    expect(proposePair(face(found, 2, 1, 10), face(found, 0, 1, 20))).toContain('not parallel');
    expect(proposePair(face(found, 1, 1, 10), face(found, 1, 1, 30))).toMatchObject({
      note: expect.stringContaining('step'),
    });
  });

  it('fits round holes and bosses', () => {
    const boss = measuringPlaces(drawableOf(soupOf(cylinderTriangles(3.1, 12, 48))));
    expect(boss.faces).toHaveLength(2);
    expect(boss.rounds).toHaveLength(1);
    expect(proposeRound(boss.rounds[0]!)).toMatchObject({
      axis: 'none',
      kind: 'boss',
      nominal_mm: 6.2,
    });
    // Inside out it is a hole.
    const hole = soupOf(cylinderTriangles(3.1, 12, 48).map(([a, b, c]) => [a, c, b] as const));
    expect(proposeRound(measuringPlaces(drawableOf(hole)).rounds[0]!).kind).toBe('hole');
  });

  it('takes corners for diagonals', () => {
    expect(proposeCorners([0, 0, 0], [30, 40, 0])).toMatchObject({
      axis: 'none',
      kind: 'diagonal',
      nominal_mm: 50,
    });
    expect(proposeCorners([0, 0, 0], [0, 0, 8])).toMatchObject({ axis: 'z', kind: 'height' });
    expect(proposeCorners([1, 1, 1], [1, 1, 1])).toContain('same corner');
  });
});

describe('writing', () => {
  it('STL and 3MF are the same solid again', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 1, max: 4000 }), { minLength: 6, maxLength: 6 }),
        (values) => {
          const [x, y, z, w, d, h] = values.map((value) => value / 64) as [
            number,
            number,
            number,
            number,
            number,
            number,
          ];
          const soup = boxSoup([x, y, z], [w, d, h]);
          const stl = factsOfMesh(writeStl(soup), 'part.stl');
          const packed = factsOfMesh(writeThreeMf(soup, 'A <part> & "more"'), 'part.3mf');
          expect(stl).toMatchObject({ format: 'stl-binary', triangles: 12, watertight: true });
          expect(packed).toMatchObject({ format: '3mf', unit: 'millimeter', triangles: 12 });
          expect(packed.identity).toBe(stl.identity);
          expect(packed.volume_mm3).toBeCloseTo(w * d * h, 6);
        },
      ),
      { numRuns: 30 },
    );
  });
});

describe('the same vertices', () => {
  const triangles = boxSoup.triangles([0, 0, 0], [20, 10, 10]);
  const moved = (by: number) =>
    soupOf(
      triangles.map((triangle) =>
        triangle.map(([x, y, z]) => [x + by, y - by, z] as const),
      ) as unknown as typeof triangles,
    );

  it('are those within a thousandth, whatever the triangles between them', () => {
    const other = soupOf(boxSoup.triangles([0, 0, 0], [20, 10, 10], true));
    expect(sameVertices(soupOf(triangles), other)).toBe(true);
    expect(sameVertices(soupOf(triangles), moved(0.0005))).toBe(true);
    expect(sameVertices(soupOf(triangles), moved(0.002))).toBe(false);
    expect(sameVertices(soupOf(triangles), soupOf(triangles.slice(0, 1)))).toBe(false);
  });
});
