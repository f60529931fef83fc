/** How far a radius may be too short, and a centre unequally far from the two ends, mm. */
const SHORT_RADIUS_MM = 0.001;
const UNEQUAL_MM = 0.05;

/** An arc in the plane, from its start point on. */
export interface Arc {
  /** Centre. */
  cx: number;
  cy: number;
  radius: number;
  /** Angle at the start, and the signed angle swept (positive is counter-clockwise). */
  from: number;
  sweep: number;
}

/**
 * An arc by its centre (offset i, j from the start) or its radius (negative: the longer way).
 *
 * @returns null where there is no such arc
 */
export function arcBetween(
  x0: number,
  y0: number,
  x1: number,
  y1: number,
  isClockwise: boolean,
  centre: { i: number; j: number } | { r: number },
): Arc | null {
  const found = 'r' in centre ? byRadius(x0, y0, x1, y1, isClockwise, centre.r) : centre;
  if (!found) return null;
  const cx = x0 + found.i;
  const cy = y0 + found.j;
  const radius = Math.hypot(found.i, found.j);
  if (!(radius > 1e-9) || !Number.isFinite(radius)) return null;
  if (Math.abs(Math.hypot(x1 - cx, y1 - cy) - radius) > UNEQUAL_MM) return null;
  const from = Math.atan2(y0 - cy, x0 - cx);
  const isFull = Math.abs(x1 - x0) < 1e-9 && Math.abs(y1 - y0) < 1e-9;
  let sweep = isFull ? 0 : Math.atan2(y1 - cy, x1 - cx) - from;
  if (isClockwise && sweep >= -1e-12) sweep -= 2 * Math.PI;
  if (!isClockwise && sweep <= 1e-12) sweep += 2 * Math.PI;
  return { cx, cy, radius, from, sweep };
}

function byRadius(
  x0: number,
  y0: number,
  x1: number,
  y1: number,
  isClockwise: boolean,
  r: number,
): { i: number; j: number } | null {
  const dx = x1 - x0;
  const dy = y1 - y0;
  const chord = Math.hypot(dx, dy);
  const size = Math.abs(r);
  if (chord < 1e-9 || !(size > 0) || chord / 2 > size + SHORT_RADIUS_MM) return null;
  // A radius a little too short is the half circle.
  const height = Math.sqrt(Math.max(0, size * size - (chord / 2) ** 2));
  const side = isClockwise === r > 0 ? -1 : 1;
  return {
    i: dx / 2 - (side * height * dy) / chord,
    j: dy / 2 + (side * height * dx) / chord,
  };
}

/** Tells the outermost points of an arc: its ends, and where it crosses an axis through its centre. */
export function eachExtreme(arc: Arc, visit: (x: number, y: number) => void): void {
  const at = (angle: number) =>
    visit(arc.cx + arc.radius * Math.cos(angle), arc.cy + arc.radius * Math.sin(angle));
  const low = Math.min(arc.from, arc.from + arc.sweep);
  const high = Math.max(arc.from, arc.from + arc.sweep);
  for (
    let quarter = Math.ceil(low / (Math.PI / 2));
    quarter * (Math.PI / 2) <= high;
    quarter += 1
  ) {
    at(quarter * (Math.PI / 2));
  }
}
