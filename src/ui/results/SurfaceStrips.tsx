import { addressOf } from '../../core/answers/figure-address/address';
import type { ContenderMark } from '../../core/model/study';
import type { Surface } from '../../core/measures/surface';
import { fixed, percent } from '../lib/format';
import { DotStrip, scaleFor } from '../marks/DotStrip';
import { StripTable } from '../marks/StripTable';
import { Unknown } from '../marks/Unknown';
import { PairVerdict, type VerdictContext } from './PairVerdict';
import { bandAbout, knownOf } from './strips';

interface SurfaceStripsProps extends VerdictContext {
  marks: readonly ContenderMark[];
  surface: Record<string, Surface>;
  /** The smallest difference of interest, points. */
  delta: number | null;
  codes: Readonly<Record<string, string>>;
}

const HEADS = [
  { text: 'Specimens' },
  { text: 'Surface index (100: clean)', term: 'surface' },
  { text: 'Inspected (% of weight)' },
  { text: 'Against the reference', term: 'verdict' },
];
const CLEAN = 100;

/** Every contender's surface index on one scale, 100 for clean parts, with its verdict. */
export function SurfaceStrips(props: SurfaceStripsProps) {
  const { marks, surface, delta, codes, ...context } = props;
  const { reference } = context;
  const shown = knownOf(marks, surface);
  const scale = scaleFor(
    shown.flatMap(({ own }) => [
      ...own.by_specimen.map((specimen) => specimen.index),
      ...(own.index.low === null ? [] : [own.index.low]),
    ]),
    CLEAN,
  );
  const band = bandAbout(reference === null ? null : surface[reference]?.index.estimate, delta);
  return (
    <div className="sheet">
      <StripTable
        heads={HEADS}
        reference={reference}
        scale={scale}
        digits={0}
        rows={shown.map(({ mark, own }) => ({
          mark,
          strip: (
            <DotStrip
              hue={mark.hue}
              isTuned={mark.isTuned}
              scale={scale}
              interval={own.index}
              band={band}
              dots={own.by_specimen.map((specimen) => ({
                value: specimen.index,
                label: `${codes[specimen.specimen_id] ?? specimen.specimen_id}: ${specimen.index.toFixed(1)}`,
              }))}
              label={
                `${mark.label}: ${own.specimens} specimens, index ` +
                `${own.index.estimate?.toFixed(1) ?? 'not known'}`
              }
            />
          ),
          cells: (
            <>
              <td className="w-[124px] px-3 whitespace-nowrap">
                <IndexFigure id={mark.contender_id} own={own} />
              </td>
              <td className="w-[60px] px-2 text-right font-mono">
                {own.coverage === null ? <Unknown /> : percent(own.coverage)}
              </td>
              <td className="w-[290px] px-2">
                <PairVerdict
                  {...context}
                  mark={mark}
                  unit="points"
                  figure={addressOf('pairs', mark.contender_id, 'surface')}
                />
              </td>
            </>
          ),
        }))}
      />
    </div>
  );
}

function IndexFigure({ id, own }: { id: string; own: Surface }) {
  const { estimate, low, high, notes = [] } = own.index;
  if (estimate === null) return <Unknown why={[...notes, ...own.notes].join('; ')} />;
  return (
    <button type="button" className="figure" data-figure={addressOf('surface', id, 'index')}>
      {fixed(estimate, 1)}{' '}
      {low !== null && low === high ? (
        <span
          className="text-ink-2"
          tabIndex={0}
          data-hint="prints of one artefact that were repeated do not differ at all"
        >
          no scatter
        </span>
      ) : low !== null && high !== null ? (
        <span className="text-ink-2">
          {fixed(low, 0)}–{fixed(high, 0)}
        </span>
      ) : (
        <span className="text-ink-2" tabIndex={0} data-hint={notes.join('; ')}>
          no interval
        </span>
      )}
    </button>
  );
}
