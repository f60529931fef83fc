import { addressOf } from '../../core/answers/figure-address/address';
import type { ReliabilitySets } from '../../core/measures/reliability';
import type { ContenderMark } from '../../core/model/study';
import { fixed, percent, ends } from '../lib/format';
import { DotStrip, type StripScale } from '../marks/DotStrip';
import { StripTable } from '../marks/StripTable';
import { Unknown } from '../marks/Unknown';

interface SuccessStripsProps {
  marks: readonly ContenderMark[];
  reliability: Record<string, ReliabilitySets>;
  reference: string | null;
}

const SCALE: StripScale = { low: 0, high: 1, ticks: [0, 0.25, 0.5, 0.75, 1] };

/** The share of prints that were a success, with its exact interval, and what it proves. */
export function SuccessStrips({ marks, reliability, reference }: SuccessStripsProps) {
  return (
    <div className="sheet">
      <StripTable
        heads={HEADS}
        reference={reference}
        scale={SCALE}
        digits={2}
        legend={{ dot: null, hasBand: false }}
        rows={marks.flatMap((mark) => {
          const sets = reliability[mark.contender_id];
          if (!sets) return [];
          const { all, without_operator: machine } = sets;
          return [
            {
              mark,
              strip: (
                <DotStrip
                  hue={mark.hue}
                  isTuned={mark.isTuned}
                  scale={SCALE}
                  interval={all.success}
                  dots={[]}
                  label={`${mark.label}: ${all.good} of ${all.prints} prints were a success`}
                />
              ),
              cells: (
                <>
                  <td className="px-2 text-right whitespace-nowrap">
                    <button
                      type="button"
                      className="figure"
                      data-figure={addressOf(
                        'reliability',
                        mark.contender_id,
                        'without_operator.success',
                      )}
                    >
                      {all.good}/{all.prints}
                    </button>
                  </td>
                  <Count value={all.rescued} id={mark.contender_id} />
                  <Count value={all.failed} id={mark.contender_id} />
                  <Count value={all.aborted} id={mark.contender_id} />
                  <td className="px-2 whitespace-nowrap">
                    {machine.success.estimate === null ? (
                      <Unknown why={machine.notes.join('; ')} />
                    ) : (
                      <button
                        type="button"
                        className="figure"
                        data-figure={addressOf(
                          'reliability',
                          mark.contender_id,
                          'without_operator.success',
                        )}
                      >
                        {machine.good}/{machine.prints}{' '}
                        <span className="text-ink-2">{ends(machine.success, percent)}</span>
                      </button>
                    )}
                  </td>
                  <td className="px-2 text-xs">
                    {all.failure_rate_below === null
                      ? `success ${ends(all.success, percent)}`
                      : `${all.prints} of ${all.prints} succeeded: failure rate below ` +
                        `${fixed(100 * all.failure_rate_below, 0)} %`}
                  </td>
                </>
              ),
            },
          ];
        })}
      />
    </div>
  );
}

const HEADS = [
  { text: 'success rate, all prints', term: 'success' },
  { text: 'good', isFigure: true },
  { text: 'rescued', isFigure: true },
  { text: 'failed', isFigure: true },
  { text: 'aborted', isFigure: true },
  { text: 'operator errors excluded' },
  { text: 'what it proves' },
];

function Count({ value, id }: { value: number; id: string }) {
  return (
    <td className={`px-2 text-right ${value === 0 ? 'text-ink-2' : ''}`}>
      <button
        type="button"
        className="figure"
        data-figure={addressOf('reliability', id, 'without_operator.success')}
      >
        {value}
      </button>
    </td>
  );
}
