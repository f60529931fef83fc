import type { GlanceCell, GlanceRow } from '../../../core/answers/glance';

interface GlanceStripProps {
  cell: GlanceCell;
  row: Pick<GlanceRow, 'scale' | 'band'>;
  hue: number;
}

/** A figure on the scale of its row: a tick, its interval, the band that does not matter. */
export function GlanceStrip({ cell, row, hue }: GlanceStripProps) {
  const { value, low, high } = cell;
  if (value === null) return null;
  const [from, to] = row.scale;
  const percent = (at: number) =>
    3 + (94 * (Math.min(to, Math.max(from, at)) - from)) / (to - from);
  const x = (at: number) => `${percent(at).toFixed(2)}%`;
  const isCut = (low !== null && low < from) || (high !== null && high > to);
  return (
    <svg className={`hue-${hue} block w-full`} height={15} aria-hidden="true">
      {row.band && (
        <rect
          x={x(row.band[0])}
          width={`${(percent(row.band[1]) - percent(row.band[0])).toFixed(2)}%`}
          height={15}
          fill="var(--band)"
        />
      )}
      {low !== null && high !== null && (
        <line
          x1={x(low)}
          x2={x(high)}
          y1={7.5}
          y2={7.5}
          stroke="var(--hue)"
          strokeWidth={2.5}
          strokeDasharray={isCut ? '5 2' : undefined}
        />
      )}
      <line x1={x(value)} x2={x(value)} y1={1.5} y2={13.5} stroke="var(--hue)" strokeWidth={2.5} />
    </svg>
  );
}
