import type { Interval } from '../../core/statistics/stats';

interface DifferenceStripProps {
  difference: Interval;
  /** What would not matter to either side; null where that is not stated. */
  delta: number | null;
  isDecided: boolean;
}

/** A difference with its interval about zero, and the band that does not matter. */
export function DifferenceStrip({ difference, delta, isDecided }: DifferenceStripProps) {
  const { estimate, low, high } = difference;
  if (estimate === null) return null;
  const reach =
    1.08 * Math.max(...[estimate, low ?? 0, high ?? 0, 1.5 * (delta ?? 0)].map(Math.abs), 1e-9);
  const x = (value: number) => `${(50 + (50 * value) / reach).toFixed(2)}%`;
  const colour = isDecided ? 'var(--plum)' : 'var(--ink-2)';
  return (
    <svg className="block w-full" height={18} aria-hidden="true">
      {delta !== null && (
        <rect
          x={x(-delta)}
          width={`${((100 * delta) / reach).toFixed(2)}%`}
          height={18}
          fill="var(--band)"
        />
      )}
      <line x1="50%" x2="50%" y1={0} y2={18} stroke="var(--line)" />
      {low !== null && high !== null && (
        <line x1={x(low)} x2={x(high)} y1={9} y2={9} stroke={colour} strokeWidth={2.5} />
      )}
      <line x1={x(estimate)} x2={x(estimate)} y1={3} y2={15} stroke={colour} strokeWidth={2.5} />
    </svg>
  );
}
