import { addressOf } from '../../core/answers/figure-address/address';
import type { AccuracySummary } from '../../core/answers/results';
import type { ContenderMark } from '../../core/model/study';
import { fixed } from '../lib/format';
import { DotStrip, scaleFor } from '../marks/DotStrip';
import { StripTable } from '../marks/StripTable';
import { Unknown } from '../marks/Unknown';
import { PairVerdict, type VerdictContext } from './PairVerdict';
import { bandAbout, knownOf } from './strips';

interface AccuracyStripsProps extends VerdictContext {
  marks: readonly ContenderMark[];
  accuracy: Record<string, AccuracySummary>;
  delta: number | null;
  codes: Readonly<Record<string, string>>;
}

/** Every contender's mean absolute deviation on one scale, with its class and verdict. */
export function AccuracyStrips(props: AccuracyStripsProps) {
  const { marks, accuracy, delta, codes, ...context } = props;
  const { reference } = context;
  const shown = knownOf(marks, accuracy);
  const scale = scaleFor(
    shown.flatMap(({ own }) => [
      ...own.by_specimen.map((specimen) => specimen.mae_mm),
      own.mae_mm.low ?? 0,
      own.mae_mm.high ?? 0,
    ]),
    0,
  );
  const band = bandAbout(reference === null ? null : accuracy[reference]?.mae_mm.estimate, delta);
  return (
    <div className="sheet">
      <StripTable
        heads={HEADS}
        reference={reference}
        scale={scale}
        digits={2}
        rows={shown.map(({ mark, own }) => ({
          mark,
          strip: (
            <DotStrip
              hue={mark.hue}
              isTuned={mark.isTuned}
              scale={scale}
              interval={own.mae_mm}
              band={band}
              dots={own.by_specimen.map((specimen) => ({
                value: specimen.mae_mm,
                label: `${codes[specimen.specimen_id] ?? specimen.specimen_id}: ${specimen.mae_mm.toFixed(3)} mm`,
              }))}
              label={
                `${mark.label}: ${own.by_specimen.length} specimens, mean ` +
                `${own.mae_mm.estimate?.toFixed(3) ?? 'not known'} mm`
              }
            />
          ),
          cells: (
            <>
              <td className="w-[124px] px-3 whitespace-nowrap">
                <MaeFigure id={mark.contender_id} own={own} />
              </td>
              <td className="w-[52px] px-2">
                {own.it_grade === null ? (
                  <Unknown why={own.notes.join('; ')} />
                ) : (
                  <button
                    type="button"
                    className="figure"
                    data-figure={addressOf('accuracy', mark.contender_id, 'tolerance.inside')}
                  >
                    {own.it_grade}
                  </button>
                )}
              </td>
              <td className="w-[290px] px-2">
                <PairVerdict
                  {...context}
                  mark={mark}
                  unit="mm"
                  figure={addressOf('pairs', mark.contender_id, 'accuracy_mm')}
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
  { text: 'Specimens' },
  { text: 'Mean deviation (mm)', term: 'accuracy' },
  { text: 'Tolerance grade', term: 'tolerance-grade' },
  { text: 'Against the reference', term: 'verdict' },
];

function MaeFigure({ id, own }: { id: string; own: AccuracySummary }) {
  const { estimate, low, high, notes } = own.mae_mm;
  if (estimate === null) return <Unknown why={notes?.join('; ') ?? 'not known'} />;
  return (
    <button type="button" className="figure" data-figure={addressOf('accuracy', id, 'mae_mm')}>
      {fixed(estimate, 3)}{' '}
      {low !== null && high !== null ? (
        <span className="text-ink-2">±{fixed((high - low) / 2, 3)}</span>
      ) : (
        <span className="text-ink-2" tabIndex={0} data-hint={notes?.join('; ')}>
          no interval
        </span>
      )}
    </button>
  );
}
