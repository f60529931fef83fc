type Point = readonly [number, number, number];

/**
 * Cuts a polygon into triangles: a fan where it is convex, else ear by ear.
 *
 * @returns three places in the polygon for each triangle
 */
export function cutPolygon(points: readonly Point[]): [number, number, number][] {
  const fan = () =>
    Array.from({ length: points.length - 2 }, (_, at): [number, number, number] => [
      0,
      at + 1,
      at + 2,
    ]);
  if (points.length <= 3) return fan();
  const normal = newell(points);
  const isConvex = points.every((_, at) => turn(points, normal, cyclic(points, at)) >= 0);
  return isConvex ? fan() : ears(points, normal);
}

/** Normal of a polygon that need not be flat or convex (Newell's method). */
function newell(points: readonly Point[]): Point {
  let [nx, ny, nz] = [0, 0, 0];
  points.forEach(([x, y, z], at) => {
    const [u, v, w] = points[(at + 1) % points.length] ?? [0, 0, 0];
    nx += (y - v) * (z + w);
    ny += (z - w) * (x + u);
    nz += (x - u) * (y + v);
  });
  return [nx, ny, nz];
}

const cyclic = (points: readonly Point[], at: number): [number, number, number] => [
  (at + points.length - 1) % points.length,
  at,
  (at + 1) % points.length,
];

/** Twice the signed area of a corner's triangle along the normal. */
function turn(
  points: readonly Point[],
  [nx, ny, nz]: Point,
  [a, b, c]: readonly [number, number, number],
): number {
  const [ax, ay, az] = points[a] ?? [0, 0, 0];
  const [bx, by, bz] = points[b] ?? [0, 0, 0];
  const [cx, cy, cz] = points[c] ?? [0, 0, 0];
  const [ux, uy, uz] = [bx - ax, by - ay, bz - az];
  const [vx, vy, vz] = [cx - ax, cy - ay, cz - az];
  return nx * (uy * vz - uz * vy) + ny * (uz * vx - ux * vz) + nz * (ux * vy - uy * vx);
}

function ears(points: readonly Point[], normal: Point): [number, number, number][] {
  const left = points.map((_, at) => at);
  const triangles: [number, number, number][] = [];
  while (left.length > 3) {
    const found = left.findIndex((_, at) => {
      const corner = cornerAt(left, at);
      if (turn(points, normal, corner) <= 0) return false;
      return left.every(
        (other) => corner.includes(other) || !isInside(points, normal, corner, other),
      );
    });
    // A polygon that crosses itself has no ear: it is cut anyhow, so that nothing is lost.
    const at = found < 0 ? 0 : found;
    triangles.push(cornerAt(left, at));
    left.splice(at, 1);
  }
  triangles.push([left[0] ?? 0, left[1] ?? 0, left[2] ?? 0]);
  return triangles;
}

const cornerAt = (left: readonly number[], at: number): [number, number, number] => [
  left[(at + left.length - 1) % left.length] ?? 0,
  left[at] ?? 0,
  left[(at + 1) % left.length] ?? 0,
];

const isInside = (
  points: readonly Point[],
  normal: Point,
  [a, b, c]: readonly [number, number, number],
  other: number,
): boolean =>
  turn(points, normal, [a, b, other]) >= 0 &&
  turn(points, normal, [b, c, other]) >= 0 &&
  turn(points, normal, [c, a, other]) >= 0;
