import { Leaving } from '../kit/Leaving';
import type { PlaceChange } from '../../core/measures/metrology';
import type { PairRow } from '../../core/statistics/compare';
import type { ContenderMark } from '../../core/model/study';
import { beforeAfterSentence } from '../../core/text/phrasing';
import { fixed, signed } from '../lib/format';
import { PlaceDisc } from '../marks/PlaceDisc';
import { ContenderName } from '../marks/ContenderName';

interface BeforeAfterProps {
  before: ContenderMark;
  after: ContenderMark;
  /** What was changed, as the contender says. */
  change: string | null;
  /** By `artefact/dimension`. */
  places: Readonly<Record<string, readonly PlaceChange[]>>;
  names: Readonly<Record<string, string>>;
  pair: PairRow | null;
  /** Prints on either side. */
  prints: { before: number; after: number };
  /** The smallest difference that matters, mm. */
  delta: number | null;
}

const WIDTH = 460;
const LEFT = 10;
const MAP = 150;

/** One machine before and after a change: every place of the plate, and what that can prove. */
export function BeforeAfter(props: BeforeAfterProps) {
  const { before, after, change, places, names, pair, prints, delta } = props;
  const all = Object.values(places).flat();
  const largest =
    Math.max(delta ?? 0, 0.01, ...all.map((one) => Math.abs(one.difference_mm))) * 1.1;
  const x = (value: number) => LEFT + ((value + largest) / (2 * largest)) * (WIDTH - 2 * LEFT);
  // Half the width of the map, mm: the largest disc at the edge of the plate is whole, across and up.
  const reach = Math.max(
    10,
    ...all.flatMap((one) => [Math.abs(one.x_mm) / 0.8, Math.abs(one.y_mm) / 0.6]),
  );
  const figures = [
    ['dimension', 'x mm', 'y mm', 'before mm', 'after mm', 'difference mm'],
    ...Object.entries(places).flatMap(([key, own]) =>
      own.map((one) => [
        names[key] ?? key,
        one.x_mm,
        one.y_mm,
        one.reference_mm,
        one.contender_mm,
        Number(one.difference_mm.toFixed(4)),
      ]),
    ),
  ];
  return (
    <section className="mb-3 min-w-0 sheet" aria-labelledby="before-after">
      <header className="border-b border-line px-3 py-2">
        <h2 id="before-after" className="font-semibold">
          After less before, place by place
        </h2>
        <p className="flex flex-wrap items-center gap-x-2 text-xs text-ink-2">
          <ContenderName mark={before} isReference /> →{' '}
          <ContenderName mark={after} isReference={false} />
          {change && ` · ${change}`}
        </p>
      </header>
      <Leaving isPicture figures={figures}>
        <div className="grid gap-3 p-3">
          {Object.entries(places).map(([key, own]) => {
            const mean = own.reduce((sum, one) => sum + one.difference_mm, 0) / own.length;
            const smaller = own.filter((one) => one.difference_mm < 0).length;
            return (
              <figure key={key} className="flex flex-wrap items-center gap-x-5 gap-y-1">
                <figcaption className="w-40">
                  <b>{names[key] ?? key}</b>
                  <span className="block text-xs text-ink-2">
                    mean <span className="font-mono text-ink">{signed(mean, 3)}</span> mm; smaller
                    at {smaller} of {own.length} places
                  </span>
                </figcaption>
                <ChangeStrip
                  name={names[key] ?? key}
                  own={own}
                  delta={delta}
                  x={x}
                  mean={mean}
                  largest={largest}
                />
                <ChangeMap reach={reach} name={names[key] ?? key} own={own} largest={largest} />
              </figure>
            );
          })}
          <p className="text-base" data-mark="before-after-sentence">
            {beforeAfterSentence(pair, prints, delta)}
          </p>
        </div>
      </Leaving>
    </section>
  );
}

interface ChangeStripProps {
  name: string;
  own: readonly PlaceChange[];
  delta: BeforeAfterProps['delta'];
  x: (value: number) => number;
  mean: number;
  largest: number;
}

/** Every place as a tick by how much it changed. */
function ChangeStrip({ name, own, delta, x, mean, largest }: ChangeStripProps) {
  return (
    <svg
      viewBox={`0 0 ${WIDTH} 58`}
      className="block w-full max-w-[460px] min-w-0 flex-1"
      role="img"
      aria-label={
        `${name}: differences from ` +
        `${signed(Math.min(...own.map((one) => one.difference_mm)), 3)} to ` +
        `${signed(Math.max(...own.map((one) => one.difference_mm)), 3)} mm`
      }
    >
      {delta !== null && (
        <rect x={x(-delta)} width={x(delta) - x(-delta)} y={4} height={34} fill="var(--band)" />
      )}
      <line x1={x(0)} x2={x(0)} y1={2} y2={42} stroke="var(--ink-2)" />
      {[...own]
        .sort((a, b) => a.difference_mm - b.difference_mm)
        .map((one, at) => (
          <circle
            key={`${one.x_mm} ${one.y_mm}`}
            cx={x(one.difference_mm)}
            cy={12 + (at % 3) * 9}
            r={3.5}
            fill="none"
            stroke={one.difference_mm < 0 ? 'var(--small)' : 'var(--large)'}
            strokeWidth={1.6}
            data-hint={
              `x ${fixed(one.x_mm, 0)}, y ${fixed(one.y_mm, 0)}: ` +
              `${signed(one.difference_mm, 3)} mm`
            }
          />
        ))}
      <line x1={x(mean)} x2={x(mean)} y1={4} y2={38} stroke="var(--ink)" strokeWidth={2} />
      {[-largest, 0, largest].map((value) => (
        <text
          key={value}
          x={x(value)}
          y={54}
          fontSize={11}
          textAnchor={value < 0 ? 'start' : value > 0 ? 'end' : 'middle'}
          className="font-mono"
          fill="var(--ink-2)"
        >
          {value === 0 ? '0' : signed(value, 3)}
        </text>
      ))}
    </svg>
  );
}

interface ChangeMapProps {
  reach: number;
  name: string;
  own: readonly PlaceChange[];
  largest: number;
}

/** The same places where they lie. */
function ChangeMap({ reach, name, own, largest }: ChangeMapProps) {
  return (
    <svg
      width={MAP}
      height={MAP * 0.8}
      viewBox={`${-reach} ${-reach * 0.8} ${2 * reach} ${1.6 * reach}`}
      className="block border border-line"
      role="img"
      aria-label={
        `${name} over the plate: ` +
        own
          .map(
            ({ x_mm, y_mm, difference_mm }) =>
              `${fixed(x_mm, 0)} ${fixed(y_mm, 0)} ${signed(difference_mm, 3)}`,
          )
          .join('; ')
      }
    >
      {own.map((one) => (
        <PlaceDisc
          key={`${one.x_mm} ${one.y_mm}`}
          x={one.x_mm}
          y={one.y_mm}
          deviation_mm={one.difference_mm}
          largest={largest}
          radius={reach / 5.5}
          hint={`x ${fixed(one.x_mm, 0)}, y ${fixed(one.y_mm, 0)}: ${signed(one.difference_mm, 3)} mm`}
        />
      ))}
    </svg>
  );
}
