import type { SweepOfFigure, SweepStep } from '../../core/measures/sweep';
import type { ContenderMark } from '../../core/model/study';
import { figureText, type FigureWords } from '../../core/answers/figure-names';
import { Leaving } from '../kit/Leaving';
import { scaleFor } from '../marks/DotStrip';
import type { Interval } from '../../core/statistics/stats';

interface SweepFigureProps {
  figure: SweepOfFigure;
  words: FigureWords;
  marks: readonly ContenderMark[];
  setting: string;
  /** The step up to which all figures together hold; null where none does. */
  holdsTo: string | null;
}

const WIDTH = 560;
const HEIGHT = 190;
const LEFT = 62;
const RIGHT = 18;
const BOTTOM = 46;

/** A figure against the swept setting: each step with its interval, the band, where it holds to. */
export function SweepFigure({ figure, words, marks, setting, holdsTo }: SweepFigureProps) {
  const { steps, delta } = figure;
  const { value, band, scale, x, y } = placesOfSweep(words, steps, delta);
  const heldStep = steps.find((step) => step.contender === holdsTo);
  return (
    <figure className="min-w-0">
      <figcaption className="px-3 pt-2">
        <b className="font-semibold">{words.label}</b>{' '}
        <span className="text-xs text-ink-2">
          {words.unit}
          {delta === null
            ? ' · described, not tested: no smallest difference is stated'
            : ` · ${words.isLargerBetter ? 'more' : 'less'} is better; band ±${figureText(words, delta)} ` +
              'about the first step'}
        </span>
      </figcaption>
      <Leaving isPicture name={words.label} figures={figuresOf(figure, setting)}>
        <svg
          className="block w-full max-w-[640px]"
          viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
          role="img"
          aria-label={`${words.label} against ${setting}: ${steps
            .map(({ value: at, estimate, shown }) => {
              const said =
                estimate?.estimate == null ? 'not known' : figureText(words, estimate.estimate);
              return `${at}: ${said}${shown === true ? ', holds' : shown === false ? ', not shown' : ''}`;
            })
            .join('; ')}`}
        >
          {band && (
            <rect
              x={LEFT}
              width={WIDTH - LEFT - RIGHT}
              y={y(value(band[1]))}
              height={Math.max(0, y(value(band[0])) - y(value(band[1])))}
              fill="var(--band)"
            />
          )}
          {scale.ticks.map((tick) => (
            <ScaleLine key={tick} tick={tick} y={y} words={words} />
          ))}
          {heldStep && (
            <line
              x1={x(heldStep.value) + 22}
              x2={x(heldStep.value) + 22}
              y1={4}
              y2={HEIGHT - BOTTOM + 4}
              stroke="var(--plum)"
              strokeDasharray="3 3"
            />
          )}
          {steps.map(({ contender, value: at, estimate, shown }) => {
            const mark = marks.find((one) => one.contender_id === contender);
            return (
              <StepMark
                key={contender}
                mark={mark}
                estimate={estimate}
                x={x}
                at={at}
                y={y}
                value={value}
                shown={shown}
                steps={steps}
              />
            );
          })}
          <text x={4} y={HEIGHT - 28} fontSize={11} fill="var(--ink-2)">
            {setting.split(' · ')[1] ?? ''}
          </text>
        </svg>
      </Leaving>
    </figure>
  );
}

/** Where the steps and the scale lie in the drawing. */
function placesOfSweep(words: FigureWords, steps: SweepStep[], delta: number | null) {
  const value = (number: number) => words.factor * number;
  const centre = steps[0]?.estimate?.estimate ?? null;
  const band =
    centre === null || delta === null ? null : ([centre - delta, centre + delta] as const);
  const estimates = steps.flatMap(({ estimate }) => estimate?.estimate ?? []);
  const [least, most] = [
    Math.min(...estimates, ...(band ?? [])),
    Math.max(...estimates, ...(band ?? [])),
  ];
  const span = most - least || Math.abs(most) || 1;
  const ends = steps.flatMap(({ estimate }) => [estimate?.low ?? [], estimate?.high ?? []].flat());
  const low = Math.max(Math.min(least, ...ends), least - 0.6 * span);
  // What cannot be below nothing is not drawn there, though the band may reach it.
  const floor = Math.min(...estimates) >= 0 ? 0 : -Infinity;
  const scale = scaleFor(
    [Math.max(floor, low), Math.min(Math.max(most, ...ends), most + 0.6 * span)].map(value),
  );
  const values = steps.map((step) => step.value);
  const [first, last] = [Math.min(...values), Math.max(...values)];
  const x = (at: number) =>
    LEFT + 26 + ((WIDTH - LEFT - RIGHT - 52) * (at - first)) / (last - first || 1);
  const y = (at: number) => {
    const share =
      (Math.min(scale.high, Math.max(scale.low, at)) - scale.low) / (scale.high - scale.low);
    return 10 + (HEIGHT - BOTTOM - 10) * (1 - share);
  };
  return { value, band, scale, x, y };
}

interface StepMarkProps {
  mark: ContenderMark | undefined;
  estimate: Interval | null;
  x: (at: number) => number;
  at: number;
  y: (at: number) => number;
  value: (number: number) => number;
  shown: boolean | null;
  steps: SweepStep[];
}

/** One step of the sweep, with its interval. */
function StepMark({ mark, estimate, x, at, y, value, shown, steps }: StepMarkProps) {
  return (
    <g className={`hue-${mark?.hue ?? 0}`}>
      {estimate?.low != null && estimate.high !== null && (
        <line
          x1={x(at)}
          x2={x(at)}
          y1={y(value(estimate.low))}
          y2={y(value(estimate.high))}
          stroke="var(--hue)"
          strokeWidth={3}
        />
      )}
      {estimate?.estimate == null ? (
        <text x={x(at)} y={HEIGHT / 2} textAnchor="middle" fontSize={11} fill="var(--ink-2)">
          not known
        </text>
      ) : (
        <line
          x1={x(at) - 9}
          x2={x(at) + 9}
          y1={y(value(estimate.estimate))}
          y2={y(value(estimate.estimate))}
          stroke="var(--hue)"
          strokeWidth={3}
        />
      )}
      <text
        x={x(at)}
        y={HEIGHT - 28}
        textAnchor="middle"
        fontSize={12}
        fill="var(--ink)"
        className="font-mono"
      >
        {at}
      </text>
      <text
        x={x(at)}
        y={HEIGHT - 12}
        textAnchor="middle"
        fontSize={11}
        fill={shown === false ? 'var(--plum)' : 'var(--ink-2)'}
      >
        {shown === true
          ? 'holds'
          : shown === false
            ? 'not shown'
            : at === steps[0]?.value
              ? 'first'
              : ''}
      </text>
    </g>
  );
}

interface ScaleLineProps {
  tick: number;
  y: (at: number) => number;
  words: FigureWords;
}

/** A line of the scale, with its number. */
function ScaleLine({ tick, y, words }: ScaleLineProps) {
  return (
    <g>
      <line x1={LEFT} x2={WIDTH - RIGHT} y1={y(tick)} y2={y(tick)} stroke="var(--line-soft)" />
      <text
        x={LEFT - 6}
        y={y(tick) + 4}
        textAnchor="end"
        fontSize={11}
        fill="var(--ink-2)"
        className="font-mono"
      >
        {tick.toFixed(Math.min(3, words.digits))}
      </text>
    </g>
  );
}

function figuresOf({ steps }: SweepOfFigure, setting: string): (string | number | null)[][] {
  return [
    [
      setting,
      'estimate',
      'low',
      'high',
      'difference',
      'difference low',
      'difference high',
      'shown',
    ],
    ...steps.map(({ value, estimate, difference, shown }) => [
      value,
      estimate?.estimate ?? null,
      estimate?.low ?? null,
      estimate?.high ?? null,
      difference?.estimate ?? null,
      difference?.low ?? null,
      difference?.high ?? null,
      shown === null ? null : String(shown),
    ]),
  ];
}
