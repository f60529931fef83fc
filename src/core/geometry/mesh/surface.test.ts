import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { Soup } from './soup';
import { surfaceOf } from './surface';
import { weld } from './weld';

/** Two cones of so many sides over one rim, closed: their tips are the vertices 0 and 1. */
function bipyramid(sides: number): number[] {
  const rim = (at: number) => 2 + (at % sides);
  return Array.from({ length: sides }, (_, at) => [
    0,
    rim(at),
    rim(at + 1),
    1,
    rim(at + 1),
    rim(at),
  ]).flat();
}

const surface = (triangles: readonly number[]) =>
  surfaceOf({
    triangles: Uint32Array.from(triangles),
    places: new Float64Array(3 * (triangles.reduce((most, one) => Math.max(most, one), 0) + 1)),
  });

/** The same triangles with other numbers for their vertices. */
const renumbered = (triangles: readonly number[], numbers: readonly number[]) =>
  triangles.map((vertex) => numbers[vertex] ?? 0);

it('corners that no others touch are vertices of their own, however many', () => {
  const soup = new Soup();
  // Three thousand triangles in a row, none of which touches the next.
  for (let at = 0; at < 3000; at += 1) {
    soup.add(3 * at, 0, 0);
    soup.add(3 * at + 1, 0, 0);
    soup.add(3 * at, 1, 0);
  }
  const welded = weld(soup);
  expect(welded.places).toHaveLength(3 * 9000);
  expect(Array.from(welded.triangles.slice(-3))).toEqual([8997, 8998, 8999]);
  expect(surfaceOf(welded)).toEqual({ isWatertight: false, shells: 3000, badEdges: 9000 });
});

describe('a surface', () => {
  it('of two cones is closed and one, however many meet at their tips and however they are numbered', () => {
    fc.assert(
      fc.property(fc.integer({ min: 3, max: 60 }), fc.nat(), (sides, seed) => {
        const numbers =
          fc.sample(
            fc.shuffledSubarray(
              Array.from({ length: sides + 2 }, (_, at) => at),
              { minLength: sides + 2 },
            ),
            { numRuns: 1, seed },
          )[0] ?? [];
        const closed = renumbered(bipyramid(sides), numbers);
        expect(surface(closed)).toEqual({ isWatertight: true, shells: 1, badEdges: 0 });
        // Without one triangle its three edges are open.
        expect(surface(closed.slice(3))).toEqual({ isWatertight: false, shells: 1, badEdges: 3 });
        // One that is the wrong way round runs along each of its edges as its neighbour does.
        const [a = 0, b = 0, c = 0, ...rest] = closed;
        expect(surface([a, c, b, ...rest])).toMatchObject({ isWatertight: false, badEdges: 3 });
        // Twice the same is too much at every edge.
        expect(surface([...closed, ...closed]).badEdges).toBe(3 * sides);
      }),
    );
  });

  it('of a hundred thousand triangles at one point is no other', () => {
    expect(surface(bipyramid(100_000))).toEqual({ isWatertight: true, shells: 1, badEdges: 0 });
  });

  it('counts what does not hang together, and no triangle that has shrunk to a line', () => {
    const one = bipyramid(5);
    const other = one.map((vertex) => vertex + 7);
    expect(surface([...one, ...other])).toEqual({ isWatertight: true, shells: 2, badEdges: 0 });
    expect(surface([...one, 3, 3, 4])).toEqual({ isWatertight: true, shells: 1, badEdges: 0 });
    expect(surface([3, 3, 4])).toEqual({ isWatertight: false, shells: 0, badEdges: 0 });
    expect(surface([0, 1, 2])).toEqual({ isWatertight: false, shells: 1, badEdges: 3 });
  });
});
