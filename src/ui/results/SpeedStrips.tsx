import { addressOf } from '../../core/answers/figure-address/address';
import type { Speed } from '../../core/measures/speed';
import type { ContenderMark } from '../../core/model/study';
import { duration, fixed } from '../lib/format';
import { ContenderHeads } from '../marks/ContenderHeads';
import { DotStrip, scaleFor } from '../marks/DotStrip';
import { StripTable } from '../marks/StripTable';
import { Unknown, UnknownCell } from '../marks/Unknown';
import { PairVerdict, type VerdictContext } from './PairVerdict';
import { knownOf } from './strips';
import { Leaving } from '../kit/Leaving';

interface SpeedStripsProps extends VerdictContext {
  marks: readonly ContenderMark[];
  speed: Record<string, Speed>;
  /** The smallest difference of interest, per cent of time. */
  deltaPct: number | null;
}

/** Printing time against the reference, every contender on one scale. */
export function SpeedStrips(props: SpeedStripsProps) {
  const { marks, speed, deltaPct, ...context } = props;
  const { reference } = context;
  const shown = knownOf(marks, speed);
  const scale = scaleFor(
    shown.flatMap(({ own }) => [
      own.time_index.low ?? own.time_index.estimate ?? 1,
      own.time_index.high ?? own.time_index.estimate ?? 1,
      ...ratios(own).map((dot) => dot.value),
    ]),
    0,
  );
  const band = deltaPct === null ? null : ([1 / (1 + deltaPct / 100), 1 + deltaPct / 100] as const);
  return (
    <div className="sheet">
      <StripTable
        heads={HEADS}
        reference={reference}
        scale={scale}
        digits={2}
        legend={{ dot: 'one artefact', hasBand: true }}
        rows={shown.map(({ mark, own }) => ({
          mark,
          strip: (
            <DotStrip
              hue={mark.hue}
              isTuned={mark.isTuned}
              scale={scale}
              interval={own.time_index}
              band={band}
              dots={ratios(own)}
              label={`${mark.label}: time index ${own.time_index.estimate?.toFixed(2) ?? 'not known'}`}
            />
          ),
          cells: (
            <>
              <td className="w-[120px] px-3 whitespace-nowrap">
                {own.time_index.estimate === null ? (
                  <Unknown why={own.time_index.notes?.join('; ') ?? 'not known'} />
                ) : (
                  <button
                    type="button"
                    className="figure"
                    data-figure={addressOf('pairs', mark.contender_id, 'ln_print_s')}
                  >
                    {fixed(own.time_index.estimate, 2)} ×
                  </button>
                )}
              </td>
              <td className="w-[120px] px-2 whitespace-nowrap">
                {own.estimate_ratio.estimate === null ? (
                  <Unknown why="no estimates" />
                ) : (
                  <button
                    type="button"
                    className="figure"
                    data-figure={addressOf('speed', mark.contender_id, 'time_index')}
                  >
                    {fixed(own.estimate_ratio.estimate, 2)}{' '}
                    {own.estimate_ratio.low !== null && own.estimate_ratio.high !== null && (
                      <span className="text-ink-2">
                        ±{fixed((own.estimate_ratio.high - own.estimate_ratio.low) / 2, 2)}
                      </span>
                    )}
                  </button>
                )}
              </td>
              <td className="w-[300px] px-2">
                <PairVerdict
                  {...context}
                  mark={mark}
                  unit="time"
                  figure={addressOf('pairs', mark.contender_id, 'ln_print_s')}
                />
              </td>
            </>
          ),
        }))}
      />
    </div>
  );
}

const HEADS = [
  { text: 'Artefacts' },
  { text: 'Print time (× reference)', term: 'time' },
  { text: 'Actual / estimated time' },
  { text: 'Against the reference', term: 'verdict' },
];

const ratios = (own: Speed) =>
  Object.entries(own.by_artefact).flatMap(([artefact, each]) =>
    each.ratio_to_reference === null
      ? []
      : [
          {
            value: each.ratio_to_reference,
            label: `${artefact}: ${each.ratio_to_reference.toFixed(2)} × the reference`,
          },
        ],
  );

interface TimesByArtefactProps {
  marks: readonly ContenderMark[];
  artefacts: readonly { id: string; name: string }[];
  speed: Record<string, Speed>;
  reference: string | null;
}

/** Median printing times, artefact by artefact; the quickest of a row is underlined. */
export function TimesByArtefact({ marks, artefacts, speed, reference }: TimesByArtefactProps) {
  return (
    <section className="min-w-0 sheet" aria-labelledby="times">
      <header className="flex flex-wrap items-baseline justify-between gap-2 border-b border-line px-3 py-2">
        <h2 id="times" className="font-semibold">
          Median printing time
        </h2>
        <p className="text-xs text-ink-2">
          finished prints, heating and pauses apart; × the reference below it; the quickest is bold
        </p>
      </header>
      <Leaving isPicture>
        <table className="w-full">
          <ContenderHeads isFigure marks={marks} reference={reference} />
          <tbody>
            {artefacts.map((artefact) => {
              const times = marks.map(
                (mark) => speed[mark.contender_id]?.by_artefact[artefact.id] ?? null,
              );
              const known = times.flatMap((time) => time?.median_print_s ?? []);
              const quickest = known.length > 1 ? Math.min(...known) : null;
              return (
                <tr key={artefact.id} className="border-b border-line-soft">
                  <th scope="row" className="px-2 py-1.5 text-left font-normal">
                    {artefact.name}
                  </th>
                  {times.map((time, at) => {
                    const mark = marks[at];
                    if (time?.median_print_s == null || !mark) {
                      return <UnknownCell key={mark?.contender_id ?? at} />;
                    }
                    return (
                      <td key={mark.contender_id} className="px-2 text-right">
                        <button
                          type="button"
                          className={`figure ${time.median_print_s === quickest ? 'font-semibold underline' : ''}`}
                          data-figure={addressOf(
                            'speed',
                            mark.contender_id,
                            `by_artefact.${artefact.id}.median_print_s`,
                          )}
                        >
                          {duration(time.median_print_s)}
                        </button>
                        <div className="text-2xs text-ink-2">
                          {time.ratio_to_reference === null
                            ? ''
                            : `${fixed(time.ratio_to_reference, 2)} ×`}{' '}
                          n {time.n}
                        </div>
                      </td>
                    );
                  })}
                </tr>
              );
            })}
          </tbody>
        </table>
      </Leaving>
    </section>
  );
}
