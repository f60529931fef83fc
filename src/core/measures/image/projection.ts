import { Matrix, SingularValueDecomposition } from 'ml-matrix';

/** A point of a plane. */
export interface Point {
  x: number;
  y: number;
}

/** A point of one plane and the point of another that it is. */
export interface PointPair {
  from: Point;
  to: Point;
}

/** A mapping of planes in homogeneous coordinates: nine numbers, row by row, the last one 1. */
export type Projection = readonly number[];

/** The image of a point; not finite where the point has none. */
export function project([a, b, c, d, e, f, g, h, i]: Projection, { x, y }: Point): Point {
  const w = (g ?? 0) * x + (h ?? 0) * y + (i ?? 1);
  return {
    x: ((a ?? 0) * x + (b ?? 0) * y + (c ?? 0)) / w,
    y: ((d ?? 0) * x + (e ?? 0) * y + (f ?? 0)) / w,
  };
}

/** The mapping that does one mapping after another. */
function composed(second: Projection, first: Projection): Projection {
  const out = Array.from({ length: 9 }, (_, at) => {
    const [row, column] = [Math.floor(at / 3), at % 3];
    return [0, 1, 2].reduce(
      (sum, k) => sum + (second[3 * row + k] ?? 0) * (first[3 * k + column] ?? 0),
      0,
    );
  });
  return scaled(out);
}

/** The way back. */
export function inverted([
  a = 0,
  b = 0,
  c = 0,
  d = 0,
  e = 0,
  f = 0,
  g = 0,
  h = 0,
  i = 0,
]: Projection): Projection {
  return scaled([
    e * i - f * h,
    c * h - b * i,
    b * f - c * e,
    f * g - d * i,
    a * i - c * g,
    c * d - a * f,
    d * h - e * g,
    b * g - a * h,
    a * e - b * d,
  ]);
}

/** By how much a mapping enlarges areas at a point, with its sign: under 0 where it mirrors. */
export function areaRatio(projection: Projection, { x, y }: Point): number {
  const [a = 0, b = 0, c = 0, d = 0, e = 0, f = 0, g = 0, h = 0, i = 0] = projection;
  const determinant = a * (e * i - f * h) - b * (d * i - f * g) + c * (d * h - e * g);
  return determinant / (g * x + h * y + i) ** 3;
}

/** How long the shortest is that a unit circle at a point becomes, against the longest: 1 is a circle. */
export function roundness(projection: Projection, at: Point): number {
  const [, , , , , , g = 0, h = 0, i = 1] = projection;
  const w = g * at.x + h * at.y + i;
  const image = project(projection, at);
  const [a = 0, b = 0, , d = 0, e = 0] = projection;
  const jacobian = new Matrix([
    [(a - g * image.x) / w, (b - h * image.x) / w],
    [(d - g * image.y) / w, (e - h * image.y) / w],
  ]);
  const [longest = 1, shortest = 0] = new SingularValueDecomposition(jacobian).diagonal;
  return shortest / longest;
}

/** Scale, turn and shift, not mirrored, by least squares; needs two pairs. */
export function fitSimilarity(pairs: readonly PointPair[]): Projection {
  const [from, to] = [middleOf(pairs, 'from'), middleOf(pairs, 'to')];
  let [re, im, square] = [0, 0, 0];
  for (const pair of pairs) {
    const [x, y] = [pair.from.x - from.x, pair.from.y - from.y];
    const [u, v] = [pair.to.x - to.x, pair.to.y - to.y];
    re += x * u + y * v;
    im += x * v - y * u;
    square += x * x + y * y;
  }
  const [c, s] = [re / square, im / square];
  return [c, -s, to.x - c * from.x + s * from.y, s, c, to.y - s * from.x - c * from.y, 0, 0, 1];
}

/** Any mapping that keeps lines parallel, by least squares; needs three pairs that are on no line. */
export function fitAffine(pairs: readonly PointPair[]): Projection {
  const system = new Matrix(pairs.map(({ from }) => [from.x, from.y, 1]));
  const svd = new SingularValueDecomposition(system, { autoTranspose: true });
  const of = (axis: 'x' | 'y') =>
    svd.solve(Matrix.columnVector(pairs.map(({ to }) => to[axis]))).to1DArray();
  return [...of('x'), ...of('y'), 0, 0, 1];
}

/**
 * Any mapping that keeps lines straight, by least squares: the normalised direct linear transform.
 * Needs four pairs of which no three are on a line.
 *
 * @see Hartley, R. I. (1997), In defense of the eight-point algorithm, IEEE PAMI 19(6)
 */
export function fitHomography(pairs: readonly PointPair[]): Projection {
  const [from, to] = [normalisation(pairs, 'from'), normalisation(pairs, 'to')];
  const rows = pairs.flatMap((pair) => {
    const { x, y } = project(from, pair.from);
    const { x: u, y: v } = project(to, pair.to);
    return [
      [-x, -y, -1, 0, 0, 0, u * x, u * y, u],
      [0, 0, 0, -x, -y, -1, v * x, v * y, v],
    ];
  });
  // Nine rows at least, so that the decomposition has the vector that belongs to the value 0.
  while (rows.length < 9) rows.push(Array<number>(9).fill(0));
  const { rightSingularVectors } = new SingularValueDecomposition(new Matrix(rows));
  return composed(inverted(to), composed(rightSingularVectors.getColumn(8), from));
}

const middleOf = (pairs: readonly PointPair[], side: 'from' | 'to'): Point => ({
  x: pairs.reduce((sum, pair) => sum + pair[side].x, 0) / pairs.length,
  y: pairs.reduce((sum, pair) => sum + pair[side].y, 0) / pairs.length,
});

/** The shift and scale that put points around 0 at a mean distance of √2. */
function normalisation(pairs: readonly PointPair[], side: 'from' | 'to'): Projection {
  const middle = middleOf(pairs, side);
  const distance =
    pairs.reduce(
      (sum, pair) => sum + Math.hypot(pair[side].x - middle.x, pair[side].y - middle.y),
      0,
    ) / pairs.length;
  const scale = Math.SQRT2 / distance;
  return [scale, 0, -scale * middle.x, 0, scale, -scale * middle.y, 0, 0, 1];
}

const scaled = (matrix: readonly number[]): Projection =>
  matrix.map((value) => value / (matrix[8] ?? 1));
