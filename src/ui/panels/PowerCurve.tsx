import { ballotsNeeded, powerOfPanels, type PanelAim } from '../../core/measures/panels';
import type { PanelKind } from '../../core/model/study';
import { percent } from '../lib/format';

interface PowerCurveProps {
  kind: PanelKind;
  aim: PanelAim;
  /** Ballots on each two contenders when all is said. */
  planned: number;
}

const WIDTH = 416;
const HEIGHT = 150;
const LEFT = 38;
const BOTTOM = 24;
const TOP = 8;

/** What there is to be found, in words. */
const describeEffect = (kind: PanelKind, effect: number): string =>
  kind === 'paired'
    ? `that ${Math.round(100 * effect)} of 100 people prefer the one`
    : `that ${Math.round(100 * effect)} of 100 people can see a difference`;

/** How often a panel finds what there is, by its number of ballots, with the planned number on it. */
export function PowerCurve({ kind, aim, planned }: PowerCurveProps) {
  const needed = ballotsNeeded(kind, aim);
  const most = Math.min(600, Math.max(30, Math.ceil(1.4 * Math.max(planned, needed ?? 0))));
  const powers = powerOfPanels(kind, most, aim);
  const x = (ballots: number) => LEFT + ((WIDTH - LEFT - 8) * ballots) / most;
  const y = (power: number) => TOP + (HEIGHT - TOP - BOTTOM) * (1 - power);
  const path = powers
    .map((power, at) => `${at === 0 ? 'M' : 'L'}${x(at + 1).toFixed(1)} ${y(power).toFixed(1)}`)
    .join('');
  const now = powers[Math.min(most, Math.floor(planned)) - 1] ?? 0;
  const step = most > 200 ? 100 : most > 80 ? 20 : 10;
  const sentence =
    planned < 1
      ? planned === 0
        ? 'Choose who is compared.'
        : 'Less than one ballot on each pair: more judges, more questions, or fewer to compare.'
      : `${Math.floor(planned)} ballots on each pair would find ${describeEffect(kind, aim.effect)} in ` +
        `${Math.round(100 * now)} of 100 such panels.`;
  return (
    <figure data-name="power of the panel">
      <figcaption className="mb-1">
        {sentence}{' '}
        {needed === null ? (
          <b>There is too little to find: thousands of ballots would not do.</b>
        ) : (
          <b>
            {needed} are needed for {Math.round(100 * aim.power)} of 100.
          </b>
        )}
      </figcaption>
      <PowerPlot
        sentence={sentence}
        aim={aim}
        y={y}
        most={most}
        step={step}
        x={x}
        path={path}
        needed={needed}
        planned={planned}
        now={now}
      />
      <p className="text-2xs text-ink-2">
        Across: ballots on each pair. Up: how often the panel finds it. The exact test, at{' '}
        {Math.round(100 * aim.alpha)} of 100 false alarms; single steps go up and down.
      </p>
    </figure>
  );
}

interface PowerPlotProps {
  sentence: string;
  aim: PanelAim;
  y: (power: number) => number;
  most: number;
  step: 100 | 20 | 10;
  x: (ballots: number) => number;
  path: string;
  needed: number | null;
  planned: number;
  now: number;
}

/** The power of every number of ballots, with the planned one and the aim. */
function PowerPlot({
  sentence,
  aim,
  y,
  most,
  step,
  x,
  path,
  needed,
  planned,
  now,
}: PowerPlotProps) {
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className="block w-full max-w-[560px]"
      role="img"
      aria-label={sentence}
    >
      {[0, 0.5, aim.power, 1].map((power) => (
        <g key={power}>
          <line
            x1={LEFT}
            x2={WIDTH - 8}
            y1={y(power)}
            y2={y(power)}
            stroke="var(--line)"
            strokeDasharray={power === aim.power ? '3 3' : undefined}
          />
          <text x={LEFT - 5} y={y(power) + 3.5} textAnchor="end" fontSize={10} fill="var(--ink-2)">
            {percent(power)}
          </text>
        </g>
      ))}
      {Array.from({ length: Math.floor(most / step) }, (_, at) => (at + 1) * step).map((tick) => (
        <text
          key={tick}
          x={x(tick)}
          y={HEIGHT - 8}
          textAnchor="middle"
          fontSize={10}
          fill="var(--ink-2)"
        >
          {tick}
        </text>
      ))}
      <path d={path} fill="none" stroke="var(--ink)" strokeWidth={1.2} />
      {needed !== null && needed <= most && (
        <line
          x1={x(needed)}
          x2={x(needed)}
          y1={y(1)}
          y2={y(0)}
          stroke="var(--ink-2)"
          strokeDasharray="2 3"
        />
      )}
      {planned >= 1 && (
        <g>
          <line
            x1={x(Math.min(most, planned))}
            x2={x(Math.min(most, planned))}
            y1={y(0)}
            y2={y(now)}
            stroke="var(--plum)"
            strokeWidth={1.5}
          />
          <circle cx={x(Math.min(most, planned))} cy={y(now)} r={4} fill="var(--plum)" />
        </g>
      )}
    </svg>
  );
}
