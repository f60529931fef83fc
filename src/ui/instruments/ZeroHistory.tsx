import { Leaving } from '../kit/Leaving';
import type { AnyRow } from '../../core/model/study';
import { fixed, signed } from '../lib/format';

interface ZeroHistoryProps {
  zeros: readonly AnyRow[];
  /** What every reading is taken less, mm. */
  zero_mm: number;
  resolution_mm: number | null;
}

const WIDTH = 640;
const HEIGHT = 120;
const LEFT = 46;

/** The looks at an instrument's zero over time, against the zero that its readings are taken less. */
export function ZeroHistory({ zeros, zero_mm, resolution_mm }: ZeroHistoryProps) {
  const points = zeros.map((row) => ({
    at: Date.parse(String(row.at)),
    said: String(row.at).slice(0, 10),
    value: Number(row.value_mm),
  }));
  const [first] = points;
  const last = points.at(-1);
  if (!first || !last) {
    return (
      <p className="px-3 py-2 text-ink-2">The zero was never checked: press Z while measuring.</p>
    );
  }
  const step = resolution_mm ?? 0.01;
  const values = [zero_mm, ...points.map((point) => point.value)];
  const [low, high] = [Math.min(...values) - 2 * step, Math.max(...values) + 2 * step];
  const x = (at: number) =>
    LEFT + ((at - first.at) / Math.max(1, last.at - first.at)) * (WIDTH - LEFT - 12);
  const y = (value: number) => 10 + ((high - value) / (high - low)) * (HEIGHT - 34);
  const off = last.value - zero_mm;
  return (
    <figure className="p-3">
      <Leaving
        isPicture
        name="Zero checks"
        figures={[['time', 'value mm'], ...points.map(({ said, value }) => [said, value])]}
      >
        <ZeroPlot
          points={points}
          y={y}
          zero_mm={zero_mm}
          step={step}
          x={x}
          first={first}
          last={last}
        />
      </Leaving>
      <figcaption className={Math.abs(off) > step / 2 + 1e-9 ? 'text-warn' : 'text-ink-2'}>
        {Math.abs(off) > step / 2 + 1e-9
          ? `The last check showed ${signed(last.value, 2)} mm, but readings are corrected by ` +
            `${signed(zero_mm, 2)} mm: every reading is off by ${fixed(Math.abs(off), 2)} mm. ` +
            'Wipe the jaws and check again. If it stays, change the zero here, for all its readings.'
          : 'The zero has held: it is within half a step of the correction.'}
      </figcaption>
    </figure>
  );
}

interface ZeroPlotProps {
  points: { at: number; said: string; value: number }[];
  y: (value: number) => number;
  zero_mm: number;
  step: number;
  x: (at: number) => number;
  first: { at: number; said: string; value: number };
  last: { at: number; said: string; value: number };
}

/** The checks over time, with the zero that counts. */
function ZeroPlot({ points, y, zero_mm, step, x, first, last }: ZeroPlotProps) {
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className="block w-full max-w-[760px]"
      role="img"
      aria-label={`zero checks: ${points.map(({ said, value }) => `${said} ${signed(value, 2)}`).join('; ')}`}
    >
      <rect
        x={LEFT}
        width={WIDTH - LEFT}
        y={y(zero_mm + step / 2)}
        height={y(zero_mm - step / 2) - y(zero_mm + step / 2)}
        fill="var(--band)"
      />
      <line x1={LEFT} x2={WIDTH} y1={y(zero_mm)} y2={y(zero_mm)} stroke="var(--ink-2)" />
      <text
        x={LEFT - 6}
        y={y(zero_mm) + 4}
        textAnchor="end"
        fontSize={11}
        className="font-mono"
        fill="var(--ink-2)"
      >
        {signed(zero_mm, 2)}
      </text>
      <polyline
        points={points.map(({ at, value }) => `${x(at)},${y(value)}`).join(' ')}
        fill="none"
        stroke="var(--plum)"
        strokeWidth={1.2}
      />
      {points.map(({ at, value, said }) => (
        <circle
          key={at}
          cx={x(at)}
          cy={y(value)}
          r={4}
          fill="var(--sheet)"
          stroke="var(--plum)"
          strokeWidth={1.8}

          data-hint={`${said}: ${signed(value, 2)} mm`}
        />
      ))}
      {[first, last].map(({ at, said }, index) => (
        <text
          key={index}
          x={x(at)}
          y={HEIGHT - 6}
          fontSize={11}
          textAnchor={index === 0 ? 'start' : 'end'}
          className="font-mono"
          fill="var(--ink-2)"
        >
          {said}
        </text>
      ))}
    </svg>
  );
}
