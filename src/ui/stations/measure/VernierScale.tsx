import type { BenchDimension } from '../../../contract/measure';

interface VernierScaleProps {
  dimension: BenchDimension;
  /** Deviations of the readings that are kept, mm. */
  earlier: readonly number[];
  /** Deviation of what is being typed, mm. */
  present: number | null;
}

const WIDTH = 440;
const LEFT = 20;

/** Where a reading lies about its nominal: limits, earlier readings, the present one. */
export function VernierScale({ dimension, earlier, present }: VernierScaleProps) {
  const { lower_tol_mm: lower, upper_tol_mm: upper } = dimension;
  const limit = Math.max(Math.abs(lower ?? 0), Math.abs(upper ?? 0), 0.1);
  const seen = Math.max(...[...earlier, present ?? 0].map(Math.abs), 0);
  const reach = [limit * 1.67, seen * 1.1].map((value) => Math.ceil(value * 20) / 20);
  const span = Math.min(Math.max(...reach), limit * 6);
  const x = (value: number) =>
    LEFT + ((WIDTH - 2 * LEFT) * (Math.max(-span, Math.min(span, value)) + span)) / (2 * span);
  const step = span / 25;
  const labels = [-span, lower, 0, upper, span].flatMap((value) => value ?? []);
  const spoken = present === null ? '' : `, now ${present.toFixed(2)} mm from nominal`;
  return (
    <svg
      viewBox={`0 0 ${WIDTH} 64`}
      className="block w-full max-w-[560px]"
      role="img"
      aria-label={`scale about nominal ${dimension.nominal_mm} mm${spoken}`}
    >
      <rect
        x={x(lower ?? -span)}
        width={x(upper ?? span) - x(lower ?? -span)}
        y={12}
        height={20}
        fill="var(--band)"
      />
      <line x1={LEFT} x2={WIDTH - LEFT} y1={32} y2={32} stroke="var(--ink)" />
      {Array.from({ length: 51 }, (_, at) => {
        const value = -span + at * step;
        return (
          <line
            key={at}
            x1={x(value)}
            x2={x(value)}
            y1={32}
            y2={at % 5 === 0 ? 40 : 36}
            stroke="var(--ink-2)"
            strokeWidth={at % 5 === 0 ? 1 : 0.6}
          />
        );
      })}
      <line x1={x(0)} x2={x(0)} y1={6} y2={32} stroke="var(--ink)" strokeWidth={1.6} />
      {earlier.map((value, at) => (
        <circle
          key={at}
          cx={x(value)}
          cy={22}
          r={4}
          fill="var(--sheet)"
          stroke="var(--small)"
          strokeWidth={1.6}
        />
      ))}
      {present !== null && (
        <line
          x1={x(present)}
          x2={x(present)}
          y1={4}
          y2={36}
          stroke="var(--plum)"
          strokeWidth={2.5}
        />
      )}
      {[...new Set(labels)].map((value) => (
        <text
          key={value}
          x={x(value)}
          y={54}
          textAnchor="middle"
          fontSize={11}
          className="font-mono"
          fill="var(--ink-2)"
        >
          {value === 0 ? '0' : `${value > 0 ? '+' : '−'}${Math.abs(value).toFixed(2)}`}
        </text>
      ))}
    </svg>
  );
}
