import type { FlatFace, RoundFace } from './places';
import { dot, minus, type Vector, vectorOf } from './vector';

/** A dimension as the geometry proposes it. */
export interface ProposedDimension {
  axis: 'x' | 'y' | 'z' | 'none';
  kind: 'external' | 'internal' | 'hole' | 'boss' | 'height' | 'diagonal';
  nominal_mm: number;
  /** The two places between which it is measured, mm. */
  from: Vector;
  to: Vector;
  /** What a person should know of it. */
  note: string | null;
}

const AXES = ['x', 'y', 'z'] as const;
const PARALLEL_COS = 1 - 1e-4;
/** Nominal sizes are stated to this, mm. */
const STATED_MM = 1e-3;

const stated = (value: number): number => Math.round(value / STATED_MM) * STATED_MM;
const tidied = (value: number): number => Number(stated(value).toFixed(3));

/** The diameter of a round hole or boss, measured across x (or the first direction across its axis). */
export function proposeRound(round: RoundFace): ProposedDimension {
  const k = AXES.indexOf(round.axis);
  const across = k === 0 ? 1 : 0;
  const at = (side: number): Vector => {
    const place: [number, number, number] = [...round.centre];
    place[across] += (side * round.diameter) / 2;
    return place;
  };
  return {
    axis: 'none',
    kind: round.isHole ? 'hole' : 'boss',
    nominal_mm: tidied(round.diameter),
    from: at(-1),
    to: at(1),
    note: null,
  };
}

/** The distance of two parallel faces; a sentence where they have none to measure. */
export function proposePair(a: FlatFace, b: FlatFace): ProposedDimension | string {
  const facing = dot(a.normal, b.normal);
  if (Math.abs(facing) < PARALLEL_COS) return 'these two faces are not parallel';
  const distance = dot(a.normal, a.min) - dot(a.normal, b.min);
  if (Math.abs(distance) < STATED_MM) return 'these two faces lie in one plane';
  const k = AXES.findIndex((_, at) => Math.abs(a.normal[at] ?? 0) > PARALLEL_COS);
  const axis = AXES[k] ?? 'none';
  // Faces that look the same way make a step; looking apart, the part lies between them.
  const isStep = facing > 0;
  const looksApart = !isStep && distance > 0;
  const kind = isStep || looksApart ? (axis === 'z' ? 'height' : 'external') : 'internal';
  const [from, to] = endsBetween(a, b, distance);
  return {
    axis,
    kind,
    nominal_mm: tidied(Math.abs(distance)),
    from,
    to,
    note:
      isStep && axis !== 'z'
        ? 'a step between faces that look the same way: fat walls do not make it longer'
        : null,
  };
}

/** Two places across from each other, in the middle of what the faces share. */
function endsBetween(a: FlatFace, b: FlatFace, distance: number): [Vector, Vector] {
  const middle = vectorOf((at) => {
    const low = Math.max(a.min[at], b.min[at]);
    const high = Math.min(a.max[at], b.max[at]);
    return low <= high ? (low + high) / 2 : (a.min[at] + a.max[at]) / 2;
  });
  const toPlane = dot(a.normal, minus(a.min, middle));
  const onA = vectorOf((at) => middle[at] + toPlane * a.normal[at]);
  const onB = vectorOf((at) => onA[at] - distance * a.normal[at]);
  return [onB, onA];
}

/** The distance of two corners: a diagonal where it runs along no axis. */
export function proposeCorners(a: Vector, b: Vector): ProposedDimension | string {
  const between = minus(b, a);
  const length = Math.hypot(...between);
  if (length < STATED_MM) return 'this is the same corner twice';
  const k = AXES.findIndex((_, at) => Math.abs(between[at] ?? 0) > PARALLEL_COS * length);
  const axis = AXES[k] ?? 'none';
  return {
    axis,
    kind: axis === 'none' ? 'diagonal' : axis === 'z' ? 'height' : 'external',
    nominal_mm: tidied(length),
    from: a,
    to: b,
    note: null,
  };
}
