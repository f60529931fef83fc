import type { Interval } from '../../core/statistics/stats';

/** The shared scale of a set of strips. */
export interface StripScale {
  low: number;
  high: number;
  /** Where the axis has its marks. */
  ticks: readonly number[];
}

/** One dot: a specimen or a print. */
export interface StripDot {
  value: number;
  label: string;
  /** Looked for and not found: a hollow square. */
  isNothing?: boolean;
}

interface DotStripProps {
  hue: number;
  isTuned: boolean;
  scale: StripScale;
  dots: readonly StripDot[];
  interval: Interval;
  /** Pale band from here to there: what would not matter. */
  band?: readonly [number, number] | null;
  /** What the strip says, for those who do not see it. */
  label: string;
  height?: number;
}

/** With more dots than this a strip shows how many fall on each place. */
export const MOST_DOTS = 80;

/** A scale with round marks that holds all values. */
export function scaleFor(values: readonly number[], from?: number): StripScale {
  const known = values.filter(Number.isFinite);
  let low = Math.min(...known, from ?? Infinity);
  let high = Math.max(...known, from ?? -Infinity);
  if (!Number.isFinite(low) || !Number.isFinite(high)) [low, high] = [0, 1];
  // Values that are the same but for rounding get a scale of a tenth of their size.
  const size = Math.max(Math.abs(low), Math.abs(high), 1e-9);
  if (high - low < 1e-9 * size) high = low + 0.1 * size;
  const rough = (high - low) / 4;
  const power = 10 ** Math.floor(Math.log10(rough));
  const step =
    [1, 2, 2.5, 5, 10].map((unit) => unit * power).find((unit) => unit >= rough) ?? rough;
  const first = Math.floor(low / step + 1e-9) * step;
  const ticks: number[] = [];
  for (let at = 0; ; at += 1) {
    const tick = first + at * step;
    ticks.push(Number(tick.toPrecision(12)));
    if (tick >= high - 1e-12 * step) break;
  }
  return { low: ticks[0] ?? low, high: ticks.at(-1) ?? high, ticks };
}

/** Where a value stands on a scale, in per cent of the strip's width. */
export const placeOn = (scale: StripScale, value: number): number =>
  4 + (92 * (value - scale.low)) / (scale.high - scale.low);

const percentOf = (value: number): string => `${Math.min(100, Math.max(0, value)).toFixed(2)}%`;

/** A contender's row on a shared scale: a dot each, a tick at the mean, a bar for the interval. */
export function DotStrip(props: DotStripProps) {
  const { hue, isTuned, scale, dots, interval, band, label, height = 34 } = props;
  const x = (value: number) => percentOf(placeOn(scale, value));
  const middle = height / 2;
  const fill = isTuned ? 'var(--hue)' : 'var(--sheet)';
  return (
    <svg className={`hue-${hue} block w-full`} height={height} role="img" aria-label={label}>
      {band && (
        <rect
          x={x(band[0])}
          width={percentOf(placeOn(scale, band[1]) - placeOn(scale, band[0]))}
          y={0}
          height={height}
          fill="var(--band)"
        />
      )}
      {scale.ticks.map((tick) => (
        <line
          key={tick}
          x1={x(tick)}
          x2={x(tick)}
          y1={0}
          y2={height}
          stroke={tick === 0 ? 'var(--line)' : 'var(--line-soft)'}
        />
      ))}
      {dots.length > MOST_DOTS
        ? piled(dots, scale).map(({ place, count, largest }) => (
            <line
              key={place}
              x1={percentOf(place)}
              x2={percentOf(place)}
              y1={middle - 1 - (11 * count) / largest}
              y2={middle + 1 + (11 * count) / largest}
              stroke="var(--hue)"
              strokeWidth={4}
              strokeOpacity={isTuned ? 0.6 : 0.35}
            />
          ))
        : stacked(dots, scale).map(({ dot, level }, at) =>
            dot.isNothing ? (
              <rect
                key={at}
                x={x(dot.value)}
                y={middle + level * 5 - 2.5}
                width={5}
                height={5}
                transform="translate(-2.5)"
                fill="var(--sheet)"
                stroke="var(--hue)"
                strokeWidth={1.2}
                data-hint={dot.label}
              />
            ) : (
              <circle
                key={at}
                cx={x(dot.value)}
                cy={middle + level * 5}
                r={3}
                fill={fill}
                fillOpacity={isTuned ? 0.75 : 1}
                stroke="var(--hue)"
                strokeWidth={1.2}
                data-hint={dot.label}
              />
            ),
          )}
      {interval.low !== null && interval.high !== null && (
        <line
          x1={x(interval.low)}
          x2={x(interval.high)}
          y1={middle}
          y2={middle}
          stroke="var(--hue)"
          strokeWidth={3}
        />
      )}
      {interval.estimate !== null && (
        <line
          x1={x(interval.estimate)}
          x2={x(interval.estimate)}
          y1={middle - 9}
          y2={middle + 9}
          stroke="var(--hue)"
          strokeWidth={2.5}
        />
      )}
    </svg>
  );
}

/** Puts dots that would hide each other above and below the middle. */
function stacked(dots: readonly StripDot[], scale: StripScale): { dot: StripDot; level: number }[] {
  const places = new Map<number, number>();
  return [...dots]
    .sort((a, b) => a.value - b.value)
    .map((dot) => {
      const place = Math.round(placeOn(scale, dot.value) / 1.2);
      const before = places.get(place) ?? 0;
      places.set(place, before + 1);
      const level = Math.ceil(before / 2) * (before % 2 === 0 ? 1 : -1);
      return { dot, level: Math.max(-2, Math.min(2, level)) };
    });
}

/** Counts dots that fall on the same place: what is shown of very many. */
function piled(
  dots: readonly StripDot[],
  scale: StripScale,
): { place: number; count: number; largest: number }[] {
  const counts = new Map<number, number>();
  for (const dot of dots) {
    const place = Math.round(placeOn(scale, dot.value));
    counts.set(place, (counts.get(place) ?? 0) + 1);
  }
  const largest = Math.max(...counts.values());
  return [...counts].map(([place, count]) => ({ place, count, largest }));
}

/** Of a figure under an axis, px: a sign of it, and what it keeps from its neighbour. */
const SIGN_PX = 6.6;
const GAP_PX = 8;

/** The axis under a set of strips; where there is little room, its ends and every other mark between. */
export function StripAxis({ scale, digits }: { scale: StripScale; digits: number }) {
  const last = scale.ticks.length - 1;
  const signs = Math.max(...scale.ticks.map((tick) => tick.toFixed(digits).length));
  const isWide = scale.ticks.length * (signs * SIGN_PX + GAP_PX) > 130;
  const narrow = isWide ? '@max-[200px]:hidden' : '@max-[130px]:hidden';
  return (
    <div className="@container">
      <svg className="block w-full" height={18} aria-hidden="true">
        {scale.ticks.map((tick, at) => {
          const isEnd = at === 0 || at === last;
          const staysNarrow = isEnd || (last % 2 === 0 && at % 2 === 0);
          return (
            <text
              key={tick}
              x={at === 0 ? 0 : at === last ? '100%' : percentOf(placeOn(scale, tick))}
              y={13}
              textAnchor={at === 0 ? 'start' : at === last ? 'end' : 'middle'}
              fontSize={11}
              fill="var(--ink-2)"
              className={`font-mono ${staysNarrow ? '' : narrow}`}
            >
              {tick.toFixed(digits)}
            </text>
          );
        })}
      </svg>
    </div>
  );
}
