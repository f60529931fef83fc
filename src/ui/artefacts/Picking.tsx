import type { Corner, MeasuringPlaces } from '../../core/geometry/mesh';
import {
  proposeCorners,
  proposePair,
  proposeRound,
  type ProposedDimension,
} from '../../core/geometry/mesh/propose';
import { onSheet, type ShownSide } from '../drawing/layout';
import { fixed } from '../lib/format';

/** What was taken hold of: a round thing, or one or two faces or corners. */
export type Picked = readonly string[];

const AXIS = ['x', 'y', 'z'] as const;
/** Directions that are seen along on each side's sheet. */
const ALONG: Record<ShownSide, 0 | 1 | 2> = { front: 1, left: 0, top: 2 };

type Face = MeasuringPlaces['faces'][number];
type Round = MeasuringPlaces['rounds'][number];

/** A face in words: which way it looks and where it is. */
export function faceName({ normal, min }: Face): string {
  const k = normal.findIndex((value) => Math.abs(value) > 0.9999);
  if (k < 0) return `slanting, at ${min.map((value) => fixed(value, 1)).join(', ')}`;
  return `${AXIS[k]} = ${fixed(min[k] ?? 0, 2)}, looks ${(normal[k] ?? 0) > 0 ? '+' : '−'}${AXIS[k]}`;
}

export const roundName = ({ axis, diameter, isHole, centre }: Round): string =>
  `${isHole ? 'hole' : 'boss'} ⌀ ${fixed(diameter, 2)} along ${axis}, at ` +
  `${centre.map((value) => fixed(value, 1)).join(', ')}`;

/** What is proposed for what is picked: nothing yet, a reason why not, or a dimension. */
export function proposalOf(
  { faces, rounds, corners }: MeasuringPlaces,
  picked: Picked,
): ProposedDimension | string | null {
  const round = rounds.find(({ id }) => id === picked[0]);
  if (round) return proposeRound(round);
  const [a, b] = picked.map((id) => faces.find((face) => face.id === id));
  if (a && b) return proposePair(a, b);
  const [from, to] = picked.map((id) => corners.find((corner) => corner.id === id));
  if (from && to) return proposeCorners(from.place, to.place);
  return picked.length === 2 ? 'a face and a corner have no distance to measure' : null;
}

export const cornerName = ({ place }: Corner): string =>
  `corner at ${place.map((value) => fixed(value, 1)).join(', ')}`;

/** The corners that are seen first from a side, one for each place on its sheet. */
function seenCorners(corners: readonly Corner[], side: ShownSide): Corner[] {
  const nearness = ({ place: [x, y, z] }: Corner) =>
    side === 'front' ? -y : side === 'left' ? -x : z;
  const first = new Map<string, Corner>();
  for (const corner of corners) {
    const key = onSheet(side, corner.place)
      .map((value) => value.toFixed(2))
      .join(' ');
    const known = first.get(key);
    if (!known || nearness(corner) > nearness(known)) first.set(key, corner);
  }
  return [...first.values()];
}

interface PickableProps {
  side: ShownSide;
  /** A screen pixel, mm. */
  unit: number;
  places: MeasuringPlaces;
  picked: Picked;
  onPick: (id: string) => void;
}

/** The faces that are seen edge-on from a side, and the round things that are seen from their end. */
export function Pickable({ side, unit, places, picked, onPick }: PickableProps) {
  const k = ALONG[side];
  const edgeOn = places.faces.filter(({ normal }) => Math.abs(normal[k] ?? 1) < 1e-4);
  const ends = places.rounds.filter(({ axis }) => axis === AXIS[k]);
  return (
    <g>
      {edgeOn.map((face) => {
        const isPicked = picked.includes(face.id);
        const [u1, v1] = onSheet(side, face.min);
        const [u2, v2] = onSheet(side, face.max);
        // A slanting face runs from corner to corner, which way its normal tells.
        const [nu, nv] = onSheet(side, face.normal);
        const isRising = nu * nv > 1e-6;
        const [top, bottom] = isRising ? [v1, v2] : [v2, v1];
        const line = { x1: u1, y1: isRising ? top : v1, x2: u2, y2: isRising ? bottom : v2 };
        return (
          <g
            key={face.id}
            className="group cursor-pointer"
            onClick={() => onPick(face.id)}
            data-pick={face.id}
          >
            <title>{faceName(face)}</title>
            <line {...line} stroke="transparent" strokeWidth={unit * 9} />
            <line
              {...line}
              stroke="var(--plum)"
              strokeWidth={unit * 3}
              opacity={isPicked ? 1 : 0}
              className="group-hover:opacity-60"
            />
          </g>
        );
      })}
      {ends.map((round) => {
        const [u, v] = onSheet(side, round.centre);
        return (
          <g
            key={round.id}
            className="group cursor-pointer"
            onClick={() => onPick(round.id)}
            data-pick={round.id}
          >
            <title>{roundName(round)}</title>
            <circle
              cx={u}
              cy={v}
              r={round.diameter / 2}
              fill="transparent"
              stroke="transparent"
              strokeWidth={unit * 9}
            />
            <circle
              cx={u}
              cy={v}
              r={round.diameter / 2}
              fill="none"
              stroke="var(--plum)"
              strokeWidth={unit * 3}
              opacity={picked.includes(round.id) ? 1 : 0}
              className="group-hover:opacity-60"
            />
          </g>
        );
      })}
      {seenCorners(places.corners, side).map((corner) => {
        const [u, v] = onSheet(side, corner.place);
        const half = unit * 3.5;
        return (
          <rect
            key={corner.id}
            className="cursor-pointer hover:opacity-100"
            onClick={() => onPick(corner.id)}
            data-pick={corner.id}
            x={u - half}
            y={v - half}
            width={2 * half}
            height={2 * half}
            fill={picked.includes(corner.id) ? 'var(--plum)' : 'var(--sheet)'}
            stroke="var(--plum)"
            strokeWidth={unit}
            opacity={picked.includes(corner.id) ? 1 : 0.55}

            data-hint={cornerName(corner)}
          />
        );
      })}
    </g>
  );
}
