import type { Region, Shape } from './parts';

export type Point = readonly [number, number];

const CIRCLE_STEP_MM = 1.6;

/**
 * The outline of a shape moved inwards, as a closed polyline from a corner of a rectangle (0: front left,
 * 2: back right); null where nothing is left.
 */
export function outline(shape: Shape, inset: number, firstCorner = 0): Point[] | null {
  if (shape.kind === 'rect') {
    const { x, y, w, h } = shape;
    const [x0, y0, x1, y1] = [x + inset, y + inset, x + w - inset, y + h - inset];
    if (x1 <= x0 || y1 <= y0) return null;
    const corners: readonly Point[] = [
      [x0, y0],
      [x1, y0],
      [x1, y1],
      [x0, y1],
    ];
    return Array.from({ length: 5 }, (_, at) => corners[(firstCorner + at) % 4] as Point);
  }
  const radius = shape.r - inset;
  if (radius <= 0.05) return null;
  const count = Math.max(16, Math.round((2 * Math.PI * radius) / CIRCLE_STEP_MM));
  return Array.from({ length: count + 1 }, (_, at) => {
    const angle = (2 * Math.PI * (at % count)) / count;
    return [shape.x + radius * Math.cos(angle), shape.y + radius * Math.sin(angle)] as const;
  });
}

/** Where a line enters and leaves a shape that is made larger by `grow`; null where it misses. */
function crossing(shape: Shape, from: Point, along: Point, grow: number): [number, number] | null {
  if (shape.kind === 'disc') {
    const [dx, dy] = [from[0] - shape.x, from[1] - shape.y];
    const b = dx * along[0] + dy * along[1];
    const root = b * b - (dx * dx + dy * dy - (shape.r + grow) ** 2);
    if (shape.r + grow <= 0 || root <= 0) return null;
    return [-b - Math.sqrt(root), -b + Math.sqrt(root)];
  }
  let low = -Infinity;
  let high = Infinity;
  const sides = [
    [shape.x - grow, shape.x + shape.w + grow],
    [shape.y - grow, shape.y + shape.h + grow],
  ] as const;
  for (const [axis, [near, far]] of sides.entries()) {
    const start = from[axis] ?? 0;
    const step = along[axis] ?? 0;
    if (far <= near) return null;
    if (Math.abs(step) < 1e-9) {
      if (start < near || start > far) return null;
      continue;
    }
    const [a, b] = [(near - start) / step, (far - start) / step];
    low = Math.max(low, Math.min(a, b));
    high = Math.min(high, Math.max(a, b));
  }
  return high > low ? [low, high] : null;
}

/** Parallel lines that fill a region, inset from its edges, back and forth. */
export function hatch(region: Region, angle: number, spacing: number, inset: number): Point[][] {
  const along: Point = [Math.cos(angle), Math.sin(angle)];
  const across: Point = [-along[1], along[0]];
  const { outer } = region;
  const [cx, cy] =
    outer.kind === 'rect' ? [outer.x + outer.w / 2, outer.y + outer.h / 2] : [outer.x, outer.y];
  const reach = outer.kind === 'rect' ? Math.hypot(outer.w, outer.h) / 2 : outer.r;
  const lines: Point[][] = [];
  const first = Math.ceil(-reach / spacing);
  for (let at = first; at * spacing <= reach; at += 1) {
    const from: Point = [cx + across[0] * at * spacing, cy + across[1] * at * spacing];
    const span = crossing(outer, from, along, -inset);
    if (!span) continue;
    const cuts = region.holes
      .flatMap((hole) => {
        const cut = crossing(hole, from, along, inset);
        return cut ? [cut] : [];
      })
      .sort((a, b) => a[0] - b[0]);
    const pieces: [number, number][] = [];
    let start = span[0];
    for (const [low, high] of cuts) {
      if (low > start) pieces.push([start, Math.min(low, span[1])]);
      start = Math.max(start, high);
    }
    if (start < span[1]) pieces.push([start, span[1]]);
    const row = pieces
      .filter(([low, high]) => high - low > 0.6)
      .map(([low, high]): Point[] => [
        [from[0] + along[0] * low, from[1] + along[1] * low],
        [from[0] + along[0] * high, from[1] + along[1] * high],
      ]);
    if (at % 2 === 0) lines.push(...row);
    else lines.push(...row.reverse().map((line) => [...line].reverse()));
  }
  return lines;
}
