import type { JSX } from 'react/jsx-runtime';
import type { Effects } from '../../core/statistics/effects';
import type { Interval } from '../../core/statistics/stats';
import { scaleFor } from '../marks/DotStrip';

interface EffectLinesProps {
  effects: Effects;
  /** By machine: its letter, hue and name. */
  machines: Readonly<Record<string, { letter: string; hue: number; name: string }>>;
  /** From the response's unit to the one that is drawn: logarithms are drawn as what they are of. */
  through: (value: number) => number;
  digits: number;
  unit: string;
  label: string;
}

const WIDTH = 360;
const HEIGHT = 210;
const LEFT = 52;
const [FIRST, LAST] = [110, 270];

/** The levels of every machine, joined: lines that cross or part are the interaction. */
export function EffectLines(props: EffectLinesProps) {
  const { effects, machines, through, digits, unit, label } = props;
  const { levels, cells, placeOf, scale, y } = placesOfEffects(effects, through);
  return (
    <svg
      className="block w-full max-w-[26rem]"
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      role="img"
      aria-label={label}
    >
      {scale.ticks.map((tick) => (
        <g key={tick}>
          <line x1={LEFT} x2={WIDTH - 8} y1={y(tick)} y2={y(tick)} stroke="var(--line-soft)" />
          <text
            x={LEFT - 5}
            y={y(tick) + 4}
            textAnchor="end"
            fontSize={11}
            fill="var(--ink-2)"
            className="font-mono"
          >
            {tick.toFixed(digits)}
          </text>
        </g>
      ))}
      {levels.map((level, at) => (
        <text
          key={level}
          x={placeOf(at)}
          y={HEIGHT - 10}
          textAnchor="middle"
          fontSize={12}
          fill="var(--ink)"
        >
          {level}
        </text>
      ))}
      <text x={LEFT} y={11} fontSize={11} fill="var(--ink-2)">
        {unit}
      </text>
      {cells.map(([machine, own], at) => {
        const { letter = '?', hue = 0, name = machine } = machines[machine] ?? {};
        const shift = (at - (cells.length - 1) / 2) * 9;
        const isAnalysed = effects.analysed.length === 0 || effects.analysed.includes(machine);
        const point = (level: string, place: number, interval: Interval | undefined) => {
          if (interval?.estimate == null) return null;
          const x = placeOf(place) + shift;
          const isFilled = level === 'tuned';
          const { low, high } = interval;
          return (
            <LevelMark
              key={level}
              low={low}
              high={high}
              x={x}
              y={y}
              through={through}
              estimate={interval.estimate}
              isFilled={isFilled}
              isAnalysed={isAnalysed}
              letter={letter}
            />
          );
        };
        const joined = levels.flatMap((level, place) => {
          const estimate = own[level]?.estimate ?? null;
          return estimate === null ? [] : [`${placeOf(place) + shift},${y(through(estimate))}`];
        });
        return (
          <MachineLine
            key={machine}
            hue={hue}
            isAnalysed={isAnalysed}
            name={name}
            joined={joined}
            levels={levels}
            point={point}
            own={own}
          />
        );
      })}
    </svg>
  );
}

/** Where the levels and the scale lie in the drawing. */
function placesOfEffects(effects: Effects, through: EffectLinesProps['through']) {
  const { levels } = effects;
  const cells = Object.entries(effects.cells);
  const placeOf = (at: number) =>
    levels.length < 2 ? (FIRST + LAST) / 2 : FIRST + ((LAST - FIRST) * at) / (levels.length - 1);
  const all = cells.flatMap(([, own]) => Object.values(own));
  const ends = all.flatMap(({ estimate, low, high }) =>
    [estimate, low, high].flatMap((value) => (value === null ? [] : [through(value)])),
  );
  const estimates = all.flatMap(({ estimate }) => (estimate === null ? [] : [through(estimate)]));
  // Intervals of two prints can be wider than all that is compared: they are cut, the means are not.
  const [least, most] = [Math.min(...estimates), Math.max(...estimates)];
  const span = most - least || Math.abs(most) || 1;
  const scale = scaleFor([
    Math.max(Math.min(...ends), least - span),
    Math.min(Math.max(...ends), most + span),
  ]);
  const y = (value: number) => {
    const share =
      (Math.min(scale.high, Math.max(scale.low, value)) - scale.low) / (scale.high - scale.low);
    return 22 + (HEIGHT - 54) * (1 - share);
  };
  return { levels, cells, placeOf, scale, y };
}

interface MachineLineProps {
  hue: number;
  isAnalysed: boolean;
  name: string;
  joined: string[];
  levels: readonly string[];
  point: (level: string, place: number, interval: Interval | undefined) => JSX.Element | null;
  own: Record<string, Interval>;
}

/** One machine’s line through its levels. */
function MachineLine({ hue, isAnalysed, name, joined, levels, point, own }: MachineLineProps) {
  return (
    <g className={`hue-${hue}`}>
      <title>{isAnalysed ? name : `${name}, outside the analysis`}</title>
      <polyline
        points={joined.join(' ')}
        fill="none"
        stroke="var(--hue)"
        strokeWidth={1.5}
        strokeOpacity={0.6}
      />
      {levels.map((level, place) => point(level, place, own[level]))}
    </g>
  );
}

interface LevelMarkProps {
  low: number | null;
  high: number | null;
  x: number;
  y: (value: number) => number;
  through: EffectLinesProps['through'];
  estimate: number;
  isFilled: boolean;
  isAnalysed: boolean;
  letter: string;
}

/** One machine at one level, with its interval. */
function LevelMark({
  low,
  high,
  x,
  y,
  through,
  estimate,
  isFilled,
  isAnalysed,
  letter,
}: LevelMarkProps) {
  return (
    <g>
      {low !== null && high !== null && (
        <line
          x1={x}
          x2={x}
          y1={y(through(low))}
          y2={y(through(high))}
          stroke="var(--hue)"
          strokeWidth={1.5}
        />
      )}
      <rect
        x={x - 6.5}
        y={y(through(estimate)) - 6.5}
        width={13}
        height={13}
        rx={1.5}
        fill={isFilled ? 'var(--hue)' : 'var(--sheet)'}
        stroke="var(--hue)"
        strokeWidth={1.5}
        strokeDasharray={isAnalysed ? undefined : '3 2'}
      />
      <text
        x={x}
        y={y(through(estimate)) + 3.5}
        textAnchor="middle"
        fontSize={9}
        fontWeight={600}
        fill={isFilled ? 'var(--sheet)' : 'var(--hue)'}
      >
        {letter}
      </text>
    </g>
  );
}
