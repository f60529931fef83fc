import { placesOf, placesText, type Places } from '../../core/statistics/compare';
import { useState } from 'react';
import { itemWords } from '../../core/answers/fairness/sentence';
import type { Interval } from '../../core/statistics/stats';
import type { ShownStanding, StandingsPage } from '../../contract/workshop';
import { Leaving } from '../kit/Leaving';
import { duration, fixed, percent } from '../lib/format';
import { DotStrip, scaleFor, StripAxis, type StripScale } from '../marks/DotStrip';
import { Unknown } from '../marks/Unknown';

/** What the standings can be ordered by. */
interface Figure {
  key: string;
  tab: string;
  head: string;
  /** Whether more is better. */
  isMore: boolean;
  interval: (row: ShownStanding) => Interval;
  dots: (row: ShownStanding) => readonly number[];
  say: (value: number) => string;
  digits: number;
  /** An end of the scale that is always shown. */
  from?: number;
}

const FIGURES: readonly Figure[] = [
  {
    key: 'deviation',
    tab: 'deviation',
    head: 'mean deviation, mm',
    isMore: false,
    digits: 2,
    from: 0,
    interval: (row) => row.mae_mm,
    dots: (row) => row.dots.mae_mm,
    say: (value) => fixed(value, 3),
  },
  {
    key: 'time',
    tab: 'time',
    head: 'printing time, min',
    isMore: false,
    digits: 0,
    from: 0,
    interval: (row) => minutes(row.print_s),
    dots: (row) => row.dots.print_s.map((seconds) => seconds / 60),
    say: (value) => duration(value * 60),
  },
  {
    key: 'successes',
    tab: 'successes',
    head: 'share of successes',
    isMore: true,
    digits: 2,
    from: 0,
    interval: (row) => row.success,
    dots: () => [],
    say: (value) => percent(value),
  },
  {
    key: 'surface',
    tab: 'surface',
    head: 'surface index',
    isMore: true,
    digits: 0,
    interval: (row) => row.surface,
    dots: (row) => row.dots.surface,
    say: (value) => fixed(value, 1),
  },
];

const minutes = ({ estimate, low, high, ...rest }: Interval): Interval => {
  const through = (value: number | null) => (value === null ? null : value / 60);
  return { ...rest, estimate: through(estimate), low: through(low), high: through(high) };
};

/** The hardest step of a ladder as a figure without an interval. */
const ladderFigure = (id: string, ladder: StandingsPage['ladders'][string]): Figure => ({
  key: `ladder-${id}`,
  tab: ladder.name.toLowerCase(),
  isMore: ladder.isMore,
  digits: 2,
  head: `${ladder.name.toLowerCase()}, ${ladder.unit}`,
  interval: (row) => ({ estimate: row.limits[id] ?? null, low: null, high: null }),
  dots: (row) => (row.limits[id] == null ? [] : [row.limits[id]]),
  say: (value) => String(value),
});

/** Everyone who ever printed an artefact, on one scale, ordered by the figure asked for. */
export function Standings({ rows, ladders }: Pick<StandingsPage, 'rows' | 'ladders'>) {
  const figures = [
    ...FIGURES,
    ...Object.entries(ladders).map(([id, ladder]) => ladderFigure(id, ladder)),
  ].filter((one) => rows.some((row) => one.interval(row).estimate !== null));
  const [key, setKey] = useState(figures[0]?.key ?? 'deviation');
  const figure = figures.find((one) => one.key === key) ?? FIGURES[0]!;
  const ordered = [...rows].sort((a, b) => {
    const [x, y] = [figure.interval(a).estimate, figure.interval(b).estimate];
    if (x === null || y === null) return Number(x === null) - Number(y === null);
    return figure.isMore ? y - x : x - y;
  });
  const places = placesOf(ordered.map(figure.interval), figure.isMore);
  const scale = scaleFor(
    ordered.flatMap((row) => {
      const { low, estimate, high } = figure.interval(row);
      const ends = [low, high].filter((end) => end !== null);
      // One very wide bar must not flatten all others: it runs out of the strip.
      const room = (estimate ?? 0) * 2;
      return [
        ...figure.dots(row),
        estimate ?? [],
        ...ends.map((end) => Math.max(Math.min(end, room), figure.from ?? end)),
      ].flat();
    }),
    figure.from,
  );
  const band = ordered[0] && bandOf(figure.interval(ordered[0]));
  return (
    <section className="w-full min-w-0 flex-1" aria-label="Standings">
      <FigureTabs figures={figures} chosen={key} onChoose={setKey} />
      <div className="overflow-x-auto sheet">
        <Leaving isPicture name="Standings">
          <table className="w-full min-w-[640px]">
            <thead>
              <tr className="border-b border-line">
                <th className="w-10 th pl-3">
                  <span className="sr-only">place</span>
                </th>
                <th className="th">machine, profile</th>
                <th className="min-w-[240px] th">{figure.head}</th>
                <th className="th text-right">
                  <span className="sr-only">{figure.head}</span>
                </th>
                <th className="th text-right">prints</th>
                <th className="th pr-3">not as the first</th>
              </tr>
            </thead>
            <tbody>
              {ordered.map((row, at) => {
                const interval = figure.interval(row);
                const place = places[at] ?? null;
                const isNear = place?.[0] === 1 && place[1] > 1;
                return (
                  <StandingRow
                    key={`${row.study_id} ${row.contender}`}
                    row={row}
                    isNear={isNear}
                    place={place}
                    rows={rows}
                    scale={scale}
                    figure={figure}
                    interval={interval}
                    band={band}
                  />
                );
              })}
              <tr>
                <td colSpan={2} />
                <td className="p-0">
                  <StripAxis scale={scale} digits={figure.digits} />
                </td>
                <td colSpan={3} className="px-3 text-right text-2xs text-ink-2">
                  1–6: six that are too close to call share these places
                </td>
              </tr>
            </tbody>
          </table>
        </Leaving>
      </div>
    </section>
  );
}

interface StandingRowProps {
  row: ShownStanding;
  isNear: boolean;
  place: Places | null;
  rows: ShownStanding[];
  scale: StripScale;
  figure: Figure;
  interval: Interval;
  band: readonly [number, number] | null | undefined;
}

/** One contender of one study. */
function StandingRow({
  row,
  isNear,
  place,
  rows,
  scale,
  figure,
  interval,
  band,
}: StandingRowProps) {
  return (
    <tr className={`border-b border-line-soft ${isNear ? 'bg-plum-soft/40' : ''}`}>
      <td className="pl-3 whitespace-nowrap text-ink-2">
        {place === null ? '' : placesText(place)}
      </td>
      <th scope="row" className="px-2 py-1 text-left font-normal">
        <a
          href={`/machines/${row.machine_uid}`}
          className="font-semibold no-underline hover:underline"
        >
          {row.machine}
        </a>{' '}
        <span className="text-ink-2" data-hint={row.profile}>
          {isTwin(row, rows) ? row.profile : row.isTuned ? 'ours, tuned' : 'as shipped'}
        </span>
        <a
          href={`/studies/${row.study_id}/results/glance`}
          className="block max-w-[30ch] truncate text-2xs text-ink-2 no-underline hover:underline lg:max-w-[46ch]"
        >
          {span(row)} · {row.study_title}
        </a>
      </th>
      <td className="p-0">
        <DotStrip
          hue={row.hue}
          isTuned={row.isTuned}
          scale={scale}
          dots={figure.dots(row).map((value) => ({ value, label: figure.say(value) }))}
          interval={interval}
          band={band ?? null}
          label={describeStrip(row, figure, interval)}
        />
      </td>
      <td className="px-2 text-right font-mono">
        {interval.estimate === null ? (
          <Unknown why={interval.notes?.[0] ?? 'not known'} />
        ) : (
          figure.say(interval.estimate)
        )}
      </td>
      <td className="px-2 text-right font-mono">{row.prints}</td>
      <td className="max-w-56 px-2 pr-3 text-2xs text-ink-2">{differing(row)}</td>
    </tr>
  );
}

interface FigureTabsProps {
  figures: Figure[];
  chosen: string;
  onChoose: (key: string) => void;
}

/** By which figure they are ordered. */
function FigureTabs({ figures, chosen, onChoose }: FigureTabsProps) {
  return (
    <div role="tablist" aria-label="Ordered by" className="mb-1 flex flex-wrap justify-end gap-x-4">
      {figures.map((one) => (
        <button
          key={one.key}
          type="button"
          role="tab"
          aria-selected={one.key === chosen}
          className={
            'border-b-2 bg-transparent py-1 ' +
            `${one.key === chosen ? 'border-plum font-semibold' : 'border-transparent text-ink-2'}`
          }
          onClick={() => onChoose(one.key)}
        >
          {one.tab}
        </button>
      ))}
    </div>
  );
}

/** Whether the same machine stands in the same study with another profile of that kind. */
const isTwin = (row: ShownStanding, rows: readonly ShownStanding[]): boolean =>
  rows.some(
    (other) =>
      other !== row &&
      other.study_id === row.study_id &&
      other.machine_uid === row.machine_uid &&
      other.isTuned === row.isTuned,
  );

const bandOf = ({ low, high }: Interval): readonly [number, number] | null =>
  low === null || high === null ? null : [low, high];

const month = (time: string | null): string | null => time?.slice(0, 7) ?? null;

/** From when to when it was printed. */
function span({ from, to }: ShownStanding): string {
  const [first, last] = [month(from), month(to)];
  if (first === null || last === null) return 'when is not known';
  return first === last ? first : `${first} … ${last}`;
}

/** What a row does not share with the first of all, with its own values. */
const differing = (row: ShownStanding): string =>
  row.differs
    .map((name) =>
      name === 'dimensions'
        ? 'other dimensions were measured'
        : `${itemWords(name)} ${(row.own[name] ?? []).join(', ')}`,
    )
    .join(' · ');

function describeStrip(
  row: ShownStanding,
  figure: Figure,
  { estimate, low, high }: Interval,
): string {
  if (estimate === null) return `${row.machine}: not known`;
  const ends =
    low === null || high === null ? 'no interval' : `${figure.say(low)} to ${figure.say(high)}`;
  return `${row.machine}: ${figure.say(estimate)}, ${ends}`;
}
