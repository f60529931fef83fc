import { useRef, useState, type SetStateAction, type RefObject, type Dispatch } from 'react';
import type { CriterionEvidence, Curve } from '../../core/answers/scorecard';
import type { ContenderMark } from '../../core/model/study';
import { figureText, type FigureWords } from '../../core/answers/figure-names';
import { faultOf, moved, reachOf, withPoint } from './curve-edit';
import { NumberField } from '../kit/NumberField';

interface CurveEditorProps {
  points: Curve;
  words: FigureWords;
  marks: readonly ContenderMark[];
  evidence: Readonly<Record<string, CriterionEvidence>>;
  onChange: (points: [number, number][]) => void;
}

const WIDTH = 190;
const HEIGHT = 62;
const BASE = 48;

/** What a criterion's values are worth: points dragged, moved by keys, or typed. */
export function CurveEditor({ points, words, marks, evidence, onChange }: CurveEditorProps) {
  const svg = useRef<SVGSVGElement>(null);
  const [dragged, setDragged] = useState<{ at: number; reach: readonly [number, number] } | null>(
    null,
  );
  const [isTyping, setTyping] = useState(false);
  const values = Object.values(evidence).flatMap(({ value }) => value ?? []);
  const reach = dragged?.reach ?? reachOf(points, values);
  const x = (value: number) => (WIDTH * (value - reach[0])) / (reach[1] - reach[0]);
  const y = (utility: number) => 6 + (BASE - 10) * (1 - utility);
  const { pointUnder, step } = useCurveHands({ svg, reach, points, onChange });
  const [first, last] = [points[0], points.at(-1)];
  if (!first || !last) return null;
  const line = [
    `M0 ${y(first[1])}`,
    ...points.map(([value, utility]) => `L${x(value).toFixed(1)} ${y(utility).toFixed(1)}`),
    `L${WIDTH} ${y(last[1])}`,
  ].join(' ');
  return (
    <div>
      <CurvePlot
        svg={svg}
        words={words}
        dragged={dragged}
        pointUnder={pointUnder}
        onChange={onChange}
        points={points}
        setDragged={setDragged}
        line={line}
        marks={marks}
        evidence={evidence}
        x={x}
        y={y}
        reach={reach}
        step={step}
      />
      <p className="flex items-baseline justify-between text-2xs text-ink-2">
        <span className="font-mono">
          {figureText({ ...words, unit: '' }, first[0])} … {figureText(words, last[0])}
        </span>
        <button
          type="button"
          className="min-h-[24px] underline decoration-line hover:text-plum"
          aria-expanded={isTyping}
          onClick={() => setTyping(!isTyping)}
        >
          type
        </button>
      </p>
      {isTyping && <TypedCurve points={points} words={words} onChange={onChange} />}
    </div>
  );
}

interface CurveHandsGiven {
  svg: RefObject<SVGSVGElement | null>;
  reach: readonly [number, number];
  points: Curve;
  onChange: CurveEditorProps['onChange'];
}

/** Where a point goes that is dragged or moved by keys. */
function useCurveHands({ svg, reach, points, onChange }: CurveHandsGiven) {
  const pointUnder = (event: React.PointerEvent) => {
    const box = svg.current?.getBoundingClientRect();
    if (!box) return null;
    const share = (event.clientX - box.left) / box.width;
    const down = ((event.clientY - box.top) / box.height) * HEIGHT;
    const utility = 1 - (down - 6) / (BASE - 10);
    return [reach[0] + share * (reach[1] - reach[0]), utility] as const;
  };
  const step = (at: number, key: string): boolean => {
    const point = points[at];
    const span = reach[1] - reach[0];
    const by: Record<string, readonly [number, number]> = {
      ArrowLeft: [-span / 100, 0],
      ArrowRight: [span / 100, 0],
      ArrowUp: [0, 0.05],
      ArrowDown: [0, -0.05],
    };
    const change = by[key];
    if (!point || !change) return false;
    onChange(moved(points, at, [point[0] + change[0], point[1] + change[1]], reach));
    return true;
  };
  return { pointUnder, step };
}

interface CurvePlotProps {
  svg: RefObject<SVGSVGElement | null>;
  words: FigureWords;
  dragged: { at: number; reach: readonly [number, number] } | null;
  pointUnder: (event: React.PointerEvent) => readonly [number, number] | null;
  onChange: CurveEditorProps['onChange'];
  points: Curve;
  setDragged: Dispatch<SetStateAction<{ at: number; reach: readonly [number, number] } | null>>;
  line: string;
  marks: CurveEditorProps['marks'];
  evidence: CurveEditorProps['evidence'];
  x: (value: number) => number;
  y: (utility: number) => number;
  reach: readonly [number, number];
  step: (at: number, key: string) => boolean;
}

/** The curve, with what each contender has on it. */
function CurvePlot({
  svg,
  words,
  dragged,
  pointUnder,
  onChange,
  points,
  setDragged,
  line,
  marks,
  evidence,
  x,
  y,
  reach,
  step,
}: CurvePlotProps) {
  return (
    <svg
      ref={svg}
      className="block w-full touch-none rounded-sm border border-line bg-desk"
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      role="group"
      aria-label={`What ${words.label} is worth`}
      onPointerMove={(event) => {
        const to = dragged && pointUnder(event);
        if (to) onChange(moved(points, dragged.at, to, dragged.reach));
      }}
      onPointerUp={() => setDragged(null)}
      onPointerCancel={() => setDragged(null)}
    >
      <path d={line} fill="none" stroke="var(--plum)" strokeWidth={1.6} />
      {marks.map((mark) => {
        const value = evidence[mark.contender_id]?.value;
        return value == null ? null : (
          <line
            key={mark.contender_id}
            className={`hue-${mark.hue}`}
            x1={x(value)}
            x2={x(value)}
            y1={BASE + 2}
            y2={HEIGHT - 2}
            stroke="var(--hue)"
            strokeWidth={mark.isTuned ? 3 : 1.6}
          >
            <title>{`${mark.label}: ${figureText(words, value)}`}</title>
          </line>
        );
      })}
      <line x1={0} x2={WIDTH} y1={BASE + 1} y2={BASE + 1} stroke="var(--line)" />
      {points.map(([value, utility], at) => (
        <CurvePoint
          key={at}
          at={at}
          x={x}
          value={value}
          y={y}
          utility={utility}
          points={points}
          words={words}
          svg={svg}
          setDragged={setDragged}
          reach={reach}
          step={step}
        />
      ))}
    </svg>
  );
}

interface CurvePointProps {
  at: number;
  x: (value: number) => number;
  value: number;
  y: (utility: number) => number;
  utility: number;
  points: Curve;
  words: FigureWords;
  svg: RefObject<SVGSVGElement | null>;
  setDragged: Dispatch<SetStateAction<{ at: number; reach: readonly [number, number] } | null>>;
  reach: readonly [number, number];
  step: (at: number, key: string) => boolean;
}

/** A point of the curve: dragged, or moved by the arrow keys. */
function CurvePoint({
  at,
  x,
  value,
  y,
  utility,
  points,
  words,
  svg,
  setDragged,
  reach,
  step,
}: CurvePointProps) {
  return (
    <circle
      cx={x(value)}
      cy={y(utility)}
      r={5}
      fill="var(--sheet)"
      stroke="var(--plum)"
      strokeWidth={1.6}
      className="cursor-move focus-visible:fill-plum"
      role="slider"
      tabIndex={0}
      aria-label={`Point ${at + 1} of ${points.length}`}
      aria-valuenow={utility}
      aria-valuemin={0}
      aria-valuemax={1}
      aria-valuetext={`${figureText(words, value)} is worth ${utility.toFixed(2)}`}
      onPointerDown={(event) => {
        svg.current?.setPointerCapture(event.pointerId);
        setDragged({ at, reach });
      }}
      onKeyDown={(event) => {
        if (step(at, event.key)) event.preventDefault();
      }}
    />
  );
}

/** The points as numbers; what is no curve is said, and not taken. */
function TypedCurve({
  points,
  words,
  onChange,
}: Pick<CurveEditorProps, 'points' | 'words' | 'onChange'>) {
  const [draft, setDraft] = useState<readonly (readonly [number, number])[] | null>(null);
  const shown = draft ?? points;
  const fault = draft && faultOf(draft);
  const take = (next: readonly (readonly [number, number])[]) => {
    if (faultOf(next) === null) {
      setDraft(null);
      onChange(next.map(([value, utility]) => [value, utility]));
    } else setDraft(next);
  };
  const change = (at: number, part: 0 | 1, number: number) =>
    take(
      shown.map((point, place) =>
        place === at
          ? ([part === 0 ? number : point[0], part === 1 ? number : point[1]] as const)
          : point,
      ),
    );
  return (
    <div className="mt-1 text-xs">
      {shown.map(([value, utility], at) => (
        <p key={at} className="mb-1 flex items-center gap-1">
          <NumberField
            className="w-20"
            label={`Value of point ${at + 1}`}
            value={value}
            onSave={(typed) => change(at, 0, typed)}
          />
          <span className="text-ink-2">is worth</span>
          <NumberField
            className="w-16"
            label={`Worth of point ${at + 1}`}
            value={utility}
            isAllowed={(typed) => typed >= 0 && typed <= 1}
            onSave={(typed) => change(at, 1, typed)}
          />
          {shown.length > 2 && (
            <button
              type="button"
              className="action px-1.5"
              aria-label={`Take point ${at + 1} away`}
              onClick={() => take(shown.filter((_, place) => place !== at))}
            >
              −
            </button>
          )}
        </p>
      ))}
      <button type="button" className="action" onClick={() => take(withPoint(shown))}>
        + point
      </button>
      {words.factor !== 1 && (
        <span className="ml-2 text-2xs text-ink-2">
          as a share: 1 is {words.factor} {words.unit}
        </span>
      )}
      {fault && (
        <p role="alert" className="mt-1 text-warn">
          {fault}
        </p>
      )}
    </div>
  );
}
