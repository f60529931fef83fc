import type { CriterionEvidence, Curve } from '../../core/answers/scorecard';

/** The ends of a curve's drawing: all of its points, and what the contenders have. */
export function reachOf(points: Curve, values: readonly number[]): readonly [number, number] {
  const all = [...points.map(([x]) => x), ...values];
  const [low, high] = [Math.min(...all), Math.max(...all)];
  const margin = (high - low || Math.abs(high) || 1) * 0.06;
  return [low - margin, high + margin];
}

/** A number with as many digits as its size needs on a scale of that span. */
function rounded(value: number, span: number): number {
  const digits = Math.max(0, 2 - Math.floor(Math.log10(Math.abs(span) || 1)));
  return Number(value.toFixed(Math.min(6, digits)));
}

/**
 * A curve with a point moved; it stays between its neighbours, so that the curve never folds back.
 *
 * @param reach the ends within which the outer points may be moved
 */
export function moved(
  points: Curve,
  at: number,
  [value, utility]: readonly [number, number],
  reach: readonly [number, number],
): [number, number][] {
  const span = reach[1] - reach[0];
  const gap = span * 0.005;
  const low = points[at - 1] ? (points[at - 1]?.[0] ?? 0) + gap : -Infinity;
  const high = points[at + 1] ? (points[at + 1]?.[0] ?? 0) - gap : Infinity;
  const held = Math.min(high, Math.max(low, value));
  const between = rounded(held, span);
  const x = between > low && between < high ? between : held;
  return points.map((point, place) =>
    place === at ? [x, Number(Math.min(1, Math.max(0, utility)).toFixed(2))] : [...point],
  );
}

/** A curve with one more point, in the middle of its widest stretch. */
export function withPoint(points: Curve): [number, number][] {
  let widest = 0;
  points.forEach((point, at) => {
    const next = points[at + 1];
    const width = next ? next[0] - point[0] : 0;
    const best = (points[widest + 1]?.[0] ?? 0) - (points[widest]?.[0] ?? 0);
    if (width > best) widest = at;
  });
  const [a, b] = [points[widest], points[widest + 1]];
  if (!a || !b) return points.map((point) => [...point]);
  const middle: [number, number] = [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];
  return [...points.slice(0, widest + 1), middle, ...points.slice(widest + 1)].map(([x, u]) => [
    x,
    u,
  ]);
}

/** Why points are no curve, in words; null where they are one. */
export function faultOf(points: Curve): string | null {
  if (points.length < 2) return 'A curve needs at least two points.';
  if (points.some(([x, u]) => !Number.isFinite(x) || !Number.isFinite(u)))
    return 'Every point needs two numbers.';
  const folded = points.findIndex(([x], at) => at > 0 && x <= (points[at - 1]?.[0] ?? 0));
  if (folded > 0)
    return `The values must ascend: ${points[folded]?.[0]} comes after ${points[folded - 1]?.[0]}.`;
  const outside = points.find(([, u]) => u < 0 || u > 1);
  return outside ? `What it is worth is from 0 to 1, not ${outside[1]}.` : null;
}

/** A first curve for a criterion: the worst that anyone has is worth nothing, the best everything. */
export function firstCurve(
  evidence: Readonly<Record<string, CriterionEvidence>>,
  isLargerBetter: boolean | null,
): [number, number][] {
  const values = Object.values(evidence).flatMap(({ value }) => value ?? []);
  let [low, high] = [Math.min(...values), Math.max(...values)];
  if (values.length === 0) [low, high] = [0, 1];
  if (high - low < 1e-9)
    [low, high] = [low - (Math.abs(low) || 1) * 0.1, high + (Math.abs(high) || 1) * 0.1];
  const span = high - low;
  const rises = isLargerBetter !== false;
  return [
    [rounded(low, span), rises ? 0 : 1],
    [rounded(high, span), rises ? 1 : 0],
  ];
}
