import { medianOrNull } from '../../statistics/stats';
import { keepComponents } from './components';
import type { Point } from './projection';
import type { Pixels } from './raster';

/** The corners of a part's outline: of four-sided parts all, of others the four that fill it best. */
export type FourCorners = readonly [Point, Point, Point, Point];

/** A part must fill this share of what is looked at, and no more than that. */
const LEAST_SHARE = 0.01;
const MOST_SHARE = 0.92;
/** Differences in colour (0…255, the largest of three channels) under this are the background's own. */
const LEAST_DIFFERENCE = 18;
/** Points of the outline this near to a side belong to it, pixels. */
const NEAR = 2.5;

/** What of a picture is looked at; the whole of it where a function is not given. */
export type IsWithin = (x: number, y: number) => boolean;

/**
 * The four corners of what stands before a plain background, clockwise from the one that is nearest to
 * the upper left; null where the background is not plain or nothing stands out.
 *
 * @param pixels three channels of 8 bits
 */
export function cornersBeforePlain(
  pixels: Pixels,
  within: IsWithin | null = null,
): FourCorners | null {
  const isWithin = within ?? (() => true);
  const { width, height } = pixels;
  const [mask, looked] = maskOf(pixels, isWithin);
  let largest = 0;
  const components = keepComponents(
    mask,
    width,
    ({ pixels: size }) => size >= LEAST_SHARE * looked,
  );
  for (const one of components) largest = Math.max(largest, one.pixels);
  if (largest === 0 || largest > MOST_SHARE * looked) return null;
  keepComponents(mask, width, ({ pixels: size }) => size === largest);
  const edge = edgeOf(mask, width, height);
  const hull = convexHull(edge);
  if (hull.length < 4) return null;
  return inOrder(sharpened(fourOf(hull), edge));
}

/** Which pixels are not the background's colour, and how many were looked at. */
function maskOf(
  { width, height, channels, data }: Pixels,
  isWithin: IsWithin,
): [Uint8Array, number] {
  const samples: number[][] = [[], [], []];
  const rim = Math.max(2, Math.round(Math.min(width, height) / 60));
  const isRim = (x: number, y: number): boolean =>
    [
      [x - rim, y],
      [x + rim, y],
      [x, y - rim],
      [x, y + rim],
    ].some(
      ([nx = 0, ny = 0]) => nx < 0 || ny < 0 || nx >= width || ny >= height || !isWithin(nx, ny),
    );
  let looked = 0;
  const within = new Uint8Array(width * height);
  for (let y = 0, at = 0; y < height; y += 1) {
    for (let x = 0; x < width; x += 1, at += 1) {
      if (!isWithin(x, y)) continue;
      within[at] = 1;
      looked += 1;
      if (!isRim(x, y)) continue;
      samples.forEach((list, channel) => list.push(data[at * channels + channel] ?? 0));
    }
  }
  const background = samples.map(middleOf);
  const spread = samples.map((list, channel) =>
    middleOf(list.map((value) => Math.abs(value - (background[channel] ?? 0)))),
  );
  const limit = Math.max(LEAST_DIFFERENCE, 6 * Math.max(...spread));
  const mask = new Uint8Array(width * height);
  for (let at = 0; at < mask.length; at += 1) {
    if (!within[at]) continue;
    let difference = 0;
    for (let channel = 0; channel < 3; channel += 1) {
      const value = data[at * channels + channel] ?? 0;
      difference = Math.max(difference, Math.abs(value - (background[channel] ?? 0)));
    }
    if (difference > limit) mask[at] = 1;
  }
  return [mask, looked];
}

/** The median of channel values; 0 where none was taken. */
const middleOf = (values: readonly number[]): number => medianOrNull(values) ?? 0;

/** The middles of the pixels at the edge of a mask. */
function edgeOf(mask: Uint8Array, width: number, height: number): Point[] {
  const points: Point[] = [];
  for (let y = 0; y < height; y += 1) {
    const row = y * width;
    for (let x = 0; x < width; x += 1) {
      if (!mask[row + x]) continue;
      const isInside =
        x > 0 &&
        x < width - 1 &&
        y > 0 &&
        y < height - 1 &&
        mask[row + x - 1] &&
        mask[row + x + 1] &&
        mask[row + x - width] &&
        mask[row + x + width];
      if (!isInside) points.push({ x: x + 0.5, y: y + 0.5 });
    }
  }
  return points;
}

const turn = (o: Point, a: Point, b: Point): number =>
  (a.x - o.x) * (b.y - o.y) - (a.y - o.y) * (b.x - o.x);

/**
 * The convex hull of points, in one sense of rotation.
 *
 * @see Andrew, A. M. (1979), Information Processing Letters 9(5)
 */
export function convexHull(points: readonly Point[]): Point[] {
  const sorted = [...points].sort((a, b) => a.x - b.x || a.y - b.y);
  const half = (list: readonly Point[]): Point[] => {
    const chain: Point[] = [];
    for (const point of list) {
      for (;;) {
        const [a, b] = [chain.at(-2), chain.at(-1)];
        if (!a || !b || turn(a, b, point) > 0) break;
        chain.pop();
      }
      chain.push(point);
    }
    return chain.slice(0, -1);
  };
  return [...half(sorted), ...half(sorted.toReversed())];
}

/** The four points of a convex polygon that lose least of its area, taken away one by one. */
export function fourOf(hull: readonly Point[]): Point[] {
  const left = [...hull];
  while (left.length > 4) {
    let [least, which] = [Infinity, 0];
    left.forEach((point, at) => {
      const before = left.at(at - 1) ?? point;
      const after = left[(at + 1) % left.length] ?? point;
      const area = Math.abs(turn(before, point, after));
      if (area < least) [least, which] = [area, at];
    });
    left.splice(which, 1);
  }
  return left;
}

/** Corners where the straight lines meet that run through the outline's points along each side. */
function sharpened(corners: readonly Point[], edge: readonly Point[]): Point[] {
  const lines = corners.map((from, at) => {
    const to = corners[(at + 1) % corners.length] ?? from;
    const length = Math.hypot(to.x - from.x, to.y - from.y);
    const [dx, dy] = [(to.x - from.x) / length, (to.y - from.y) / length];
    const own = edge.filter((point) => {
      const along = (point.x - from.x) * dx + (point.y - from.y) * dy;
      const beside = (point.x - from.x) * dy - (point.y - from.y) * dx;
      return along > 0.08 * length && along < 0.92 * length && Math.abs(beside) < NEAR;
    });
    return lineThrough(own.length >= 8 ? own : [from, to]);
  });
  return corners.map((corner, at) => {
    const meeting = meet(lines.at(at - 1), lines[at]);
    const isNear =
      meeting !== null && Math.hypot(meeting.x - corner.x, meeting.y - corner.y) < 4 * NEAR;
    return isNear ? meeting : corner;
  });
}

/** A line as a·x + b·y = c with a² + b² = 1. */
type Line = readonly [number, number, number];

/** The line of least squared distances. */
function lineThrough(points: readonly Point[]): Line {
  const n = points.length;
  const mx = points.reduce((sum, { x }) => sum + x, 0) / n;
  const my = points.reduce((sum, { y }) => sum + y, 0) / n;
  let [xx, xy, yy] = [0, 0, 0];
  for (const { x, y } of points) {
    xx += (x - mx) ** 2;
    xy += (x - mx) * (y - my);
    yy += (y - my) ** 2;
  }
  const angle = Math.atan2(2 * xy, xx - yy) / 2;
  const [a, b] = [-Math.sin(angle), Math.cos(angle)];
  return [a, b, a * mx + b * my];
}

function meet(one: Line | undefined, other: Line | undefined): Point | null {
  if (!one || !other) return null;
  const [a, b, c] = one;
  const [d, e, f] = other;
  const determinant = a * e - b * d;
  if (Math.abs(determinant) < 1e-3) return null;
  return { x: (c * e - b * f) / determinant, y: (a * f - c * d) / determinant };
}

/** Clockwise as seen (y downwards), from the corner that is nearest to the upper left. */
export function inOrder(corners: readonly Point[]): FourCorners {
  const mx = corners.reduce((sum, { x }) => sum + x, 0) / corners.length;
  const my = corners.reduce((sum, { y }) => sum + y, 0) / corners.length;
  const around = [...corners].sort(
    (a, b) => Math.atan2(a.y - my, a.x - mx) - Math.atan2(b.y - my, b.x - mx),
  );
  const sums = around.map(({ x, y }) => x + y);
  const first = sums.indexOf(Math.min(...sums));
  const [a, b, c, d] = [...around.slice(first), ...around.slice(0, first)];
  if (!a || !b || !c || !d) throw new RangeError('an outline has four corners');
  return [a, b, c, d];
}
