import { Soup } from '../../src/core/geometry/mesh';

export type Point = readonly [number, number, number];
export type Triangle = readonly [Point, Point, Point];

/** Triangles as a mesh. */
export function soupOf(triangles: readonly Triangle[]): Soup {
  const soup = new Soup(triangles.length);
  for (const triangle of triangles) for (const corner of triangle) soup.add(...corner);
  return soup;
}

/** Corners of a box's sides, each seen from outside. */
export const QUADS = [
  [0, 2, 3, 1],
  [4, 5, 7, 6],
  [0, 1, 5, 4],
  [2, 6, 7, 3],
  [0, 4, 6, 2],
  [1, 3, 7, 5],
];

/** The corners of a box from its lowest one. */
export const boxPoints = ([x, y, z]: Point, [w, d, h]: Point): Point[] =>
  [0, 1, 2, 3, 4, 5, 6, 7].map((at): Point => [
    x + (at & 1 ? w : 0),
    y + (at & 2 ? d : 0),
    z + (at & 4 ? h : 0),
  ]);

function boxTriangles(at: Point, size: Point, otherDiagonals = false): Triangle[] {
  const points = boxPoints(at, size);
  return QUADS.flatMap((quad): Triangle[] => {
    const [a, b, c, d4] = quad.map((corner) => points[corner]) as [Point, Point, Point, Point];
    return otherDiagonals
      ? [
          [b, c, d4],
          [b, d4, a],
        ]
      : [
          [a, b, c],
          [a, c, d4],
        ];
  });
}

/** A box from its lowest corner, as twelve triangles that look outwards. */
export const boxSoup = Object.assign((at: Point, size: Point) => soupOf(boxTriangles(at, size)), {
  triangles: boxTriangles,
});

/** An upright cylinder on the origin, with so many sides. */
export function cylinderTriangles(radius: number, height: number, sides: number): Triangle[] {
  const at = (side: number, z: number): Point => {
    const angle = (2 * Math.PI * (side % sides)) / sides;
    return [radius * Math.cos(angle), radius * Math.sin(angle), z];
  };
  return Array.from({ length: sides }, (_, side): Triangle[] => [
    [[0, 0, 0], at(side + 1, 0), at(side, 0)],
    [[0, 0, height], at(side, height), at(side + 1, height)],
    [at(side, 0), at(side + 1, 0), at(side + 1, height)],
    [at(side, 0), at(side + 1, height), at(side, height)],
  ]).flat();
}
