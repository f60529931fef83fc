import type { AnyRow } from '../../core/model/study';
import { onSheet, sideOfLadder, type ShownSide } from '../drawing/layout';

interface ZoneMarksProps {
  side: ShownSide;
  unit: number;
  zones: readonly AnyRow[];
  zonePlaces: readonly AnyRow[];
  ladderPlaces: readonly AnyRow[];
  steps: readonly AnyRow[];
  ladders: readonly AnyRow[];
}

/** Zones as pale rectangles on their side, and steps of ladders where they are. */
export function ZoneMarks(props: ZoneMarksProps) {
  const { side, unit, zones, zonePlaces, ladderPlaces, steps, ladders } = props;
  return (
    <g>
      {zonePlaces
        .filter((row) => row.side === side)
        .map((row) => {
          const [u1, v1] = [Number(row.u1_mm), Number(row.v1_mm)];
          const [u2, v2] = [Number(row.u2_mm), Number(row.v2_mm)];
          const zone = zones.find((one) => one.zone_id === row.zone_id);
          return (
            <g key={String(row.zone_id)} data-zone={row.zone_id}>
              <rect
                x={Math.min(u1, u2)}
                y={-Math.max(v1, v2)}
                width={Math.abs(u2 - u1)}
                height={Math.abs(v2 - v1)}
                fill="var(--plum)"
                fillOpacity={0.07}
                stroke="var(--plum)"
                strokeWidth={unit * 0.8}
                strokeDasharray={`${unit * 2} ${unit * 2}`}
              />
              <text
                x={Math.min(u1, u2) + unit * 3}
                y={-Math.max(v1, v2) + unit * 11}
                fontSize={unit * 10}
                fill="var(--plum)"
              >
                {String(zone?.name ?? row.zone_id)}
              </text>
            </g>
          );
        })}
      {ladderPlaces.map((row) => {
        const place = [Number(row.x_mm), Number(row.y_mm), Number(row.z_mm)] as const;
        const ladder = ladders.find((one) => one.ladder_id === row.ladder_id);
        if (side !== sideOfLadder(String(ladder?.quantity))) return null;
        const [u, v] = onSheet(side, place);
        const step = steps.find((one) => one.ladder_id === row.ladder_id && one.step === row.step);
        return (
          <text
            key={`${String(row.ladder_id)} ${String(row.step)}`}
            x={u}
            y={v - unit * 2}
            fontSize={unit * 9}
            textAnchor="middle"
            className="font-mono"
            fill="var(--plum)"
            stroke="var(--sheet)"
            strokeWidth={unit * 2.5}
            paintOrder="stroke"
          >
            {String(step?.value ?? row.step)}
          </text>
        );
      })}
    </g>
  );
}
