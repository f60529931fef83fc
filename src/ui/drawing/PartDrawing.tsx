import { useMemo, type ReactNode } from 'react';
import {
  layOutSides,
  type DrawnDimension,
  type LaidOutSide,
  type ShownSide,
  type ShownSides,
} from './layout';

interface PartDrawingProps {
  sides: ShownSides;
  dimensions: readonly DrawnDimension[];
  shown?: readonly ShownSide[];
  /** The dimension that is marked. */
  present?: string | null;
  /** How wide the drawing is on the screen, about, px: what is written stays readable. */
  width?: number;
  onChoose?: (id: string) => void;
  /** What else lies on a side. */
  over?: (side: ShownSide, unit: number) => ReactNode;
  label: string;
  /** How it fills its place. */
  className?: string;
}

const ALL: readonly ShownSide[] = ['front', 'left', 'top'];
const NAMES: Record<ShownSide, string> = {
  front: 'front (x–z)',
  left: 'left (y–z)',
  top: 'top (x–y)',
};
/** Letters on the screen, px. */
const LETTER_PX = 11;

/** A part in first-angle arrangement, to one scale: the front, what is left of it, what is on top. */
export function PartDrawing(props: PartDrawingProps) {
  const {
    sides,
    dimensions,
    shown = ALL,
    present = null,
    width = 560,
    over,
    onChoose,
    label,
    className = 'block max-h-[70vh] w-full',
  } = props;
  const { placed, box, unit } = useMemo(
    () => arrange(sides, dimensions, shown, width),
    [sides, dimensions, shown, width],
  );
  return (
    <svg
      viewBox={`${box.left} ${box.top} ${box.width} ${box.height}`}
      className={className}
      role="img"
      aria-label={label}
    >
      {placed.map(({ side, lines, around, u, v }) => (
        <g key={side} transform={`translate(${u} ${v})`} data-side={side}>
          {placed.length > 1 && (
            <text
              x={around.left}
              y={around.top + unit * 10}
              fontSize={unit * LETTER_PX}
              fill="var(--ink-2)"
            >
              {NAMES[side]}
            </text>
          )}
          <path
            d={sides[side].hidden}
            fill="none"
            stroke="var(--line)"
            strokeWidth={unit}
            strokeDasharray={`${unit * 4} ${unit * 3}`}
          />
          <path
            d={sides[side].visible}
            fill="none"
            stroke="var(--ink)"
            strokeWidth={unit * 1.4}
            strokeLinejoin="round"
          />
          {lines
            .filter((line) => line.id !== present)
            .map((line) => (
              <Line key={line.id} line={line} unit={unit} isPresent={false} onChoose={onChoose} />
            ))}
          {lines
            .filter((line) => line.id === present)
            .map((line) => (
              <Line key={line.id} line={line} unit={unit} isPresent onChoose={onChoose} />
            ))}
          {over?.(side, unit)}
        </g>
      ))}
    </svg>
  );
}

interface LineProps {
  line: LaidOutSide['lines'][number];
  unit: number;
  isPresent: boolean;
  onChoose: ((id: string) => void) | undefined;
}

function Line({ line, unit, isPresent, onChoose }: LineProps) {
  const [u1, v1, u2, v2] = line.line;
  const length = Math.hypot(u2 - u1, v2 - v1) || 1;
  // Short strokes across the ends, as a vernier is ruled.
  const [nu, nv] = [((v1 - v2) / length) * unit * 4, ((u2 - u1) / length) * unit * 4];
  const stroke = isPresent ? 'var(--plum)' : 'var(--ink-2)';
  const weight = unit * (isPresent ? 2.2 : 0.8);
  const [x, y] = line.at;
  return (
    <g
      data-dimension={line.id}
      data-present={isPresent || undefined}
      opacity={isPresent ? 1 : 0.75}
      {...(onChoose && { onClick: () => onChoose(line.id), className: 'cursor-pointer' })}
    >
      {line.leads.map(([a, b, c, d], at) => (
        <line key={at} x1={a} y1={b} x2={c} y2={d} stroke={stroke} strokeWidth={unit * 0.6} />
      ))}
      <line x1={u1} y1={v1} x2={u2} y2={v2} stroke={stroke} strokeWidth={weight} />
      {[
        [u1, v1],
        [u2, v2],
      ].map(([u = 0, v = 0], at) => (
        <line
          key={at}
          x1={u - nu}
          y1={v - nv}
          x2={u + nu}
          y2={v + nv}
          stroke={stroke}
          strokeWidth={weight}
        />
      ))}
      <text
        x={x}
        y={y}
        fontSize={unit * (isPresent ? LETTER_PX + 2 : LETTER_PX)}
        fontWeight={isPresent ? 700 : 400}
        textAnchor={line.leads.length === 0 && line.line[0] === line.line[2] ? 'start' : 'middle'}
        className="font-mono"
        fill={isPresent ? 'var(--plum)' : 'var(--ink-2)'}
        stroke="var(--sheet)"
        strokeWidth={unit * 3}
        paintOrder="stroke"
        transform={line.isUpright ? `rotate(-90 ${x} ${y})` : undefined}
      >
        {line.label}
      </text>
    </g>
  );
}

interface Placed extends LaidOutSide {
  u: number;
  v: number;
}

function arrange(
  sides: ShownSides,
  dimensions: readonly DrawnDimension[],
  shown: readonly ShownSide[],
  width: number,
): {
  placed: Placed[];
  box: { left: number; top: number; width: number; height: number };
  unit: number;
} {
  // The unit (a screen pixel in mm) and the room for letters hang on each other: two rounds settle it.
  let unit = 0.3;
  let result = placeAll(sides, dimensions, shown, unit);
  for (let round = 0; round < 3; round += 1) {
    unit = result.box.width / width;
    result = placeAll(sides, dimensions, shown, unit);
  }
  return { ...result, unit };
}

function placeAll(
  sides: ShownSides,
  dimensions: readonly DrawnDimension[],
  shown: readonly ShownSide[],
  unit: number,
) {
  const laid = layOutSides(sides, dimensions, shown, unit * 18);
  const find = (side: ShownSide) => laid.find((one) => one.side === side);
  const [front, left, top] = [find('front'), find('left'), find('top')];
  const placed: Placed[] = [];
  if (front) placed.push({ ...front, u: 0, v: 0 });
  if (left) {
    const u = front ? front.around.left + front.around.width - left.around.left : 0;
    placed.push({ ...left, u, v: 0 });
  }
  const upper = [front, left].filter((one) => one !== undefined);
  if (top) {
    const bottom = Math.max(...upper.map(({ around }) => around.top + around.height), -Infinity);
    placed.push({ ...top, u: 0, v: upper.length > 0 ? bottom - top.around.top : 0 });
  }
  const boxes = placed.map(({ around, u, v }) => ({
    left: around.left + u,
    top: around.top + v,
    right: around.left + u + around.width,
    bottom: around.top + v + around.height,
  }));
  const [l, t] = [Math.min(...boxes.map((b) => b.left)), Math.min(...boxes.map((b) => b.top))];
  return {
    placed,
    box: {
      left: l,
      top: t,
      width: Math.max(...boxes.map((b) => b.right)) - l,
      height: Math.max(...boxes.map((b) => b.bottom)) - t,
    },
  };
}
