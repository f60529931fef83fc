import { addressOf } from '../../core/answers/figure-address/address';
import { inWords, type ContenderMark } from '../../core/model/study';
import type { Defects, ZoneDefects } from '../../core/measures/surface';
import { ContenderHeads } from '../marks/ContenderHeads';
import { GradeDisc } from '../marks/GradeDisc';
import { UnknownCell } from '../marks/Unknown';
import { Leaving } from '../kit/Leaving';

/** A zone with its names. */
export interface NamedZone {
  artefact_id: string;
  zone_id: string;
  name: string;
  artefact: string;
  weight: number;
}

interface ZoneMatrixProps {
  marks: readonly ContenderMark[];
  zones: readonly NamedZone[];
  defects: Defects;
  reference: string | null;
}

/** Zone by zone and contender by contender: the worst that was found there. */
export function ZoneMatrix({ marks, zones, defects, reference }: ZoneMatrixProps) {
  const shown = zones.filter((zone) =>
    marks.some((mark) => defects.zones[mark.contender_id]?.[keyOf(zone)]),
  );
  return (
    <section className="min-w-0 sheet" aria-labelledby="zone-matrix">
      <header className="flex flex-wrap items-baseline justify-between gap-2 border-b border-line px-3 py-2">
        <h2 id="zone-matrix" className="font-semibold">
          Where it shows
        </h2>
        <p className="flex items-center gap-2 text-xs text-ink-2">
          the worst finding:{' '}
          {LEGEND.map(({ grade, word }) => (
            <span key={word} className="inline-flex items-center gap-1">
              <GradeDisc grade={grade} size={14} /> {word}
            </span>
          ))}
        </p>
      </header>
      <Leaving isPicture>
        <table className="w-full">
          <ContenderHeads first="zone" hasNames marks={marks} reference={reference} />
          <tbody>
            {shown.map((zone) => (
              <tr key={keyOf(zone)} className="border-b border-line-soft">
                <th scope="row" className="px-2 py-1 text-left font-normal whitespace-nowrap">
                  {zone.name} <span className="text-xs text-ink-2">{zone.artefact}</span>
                </th>
                {marks.map((mark) => {
                  const own = defects.zones[mark.contender_id]?.[keyOf(zone)];
                  return own ? (
                    <td key={mark.contender_id} className="px-2 py-1">
                      <ZoneFigure own={own} mark={mark} zone={zone} />
                    </td>
                  ) : (
                    <UnknownCell key={mark.contender_id} why="not looked at" />
                  );
                })}
              </tr>
            ))}
          </tbody>
        </table>
      </Leaving>
    </section>
  );
}

const LEGEND = [
  { grade: 0, word: 'clean' },
  { grade: 1, word: 'trace' },
  { grade: 2, word: 'slight' },
  { grade: 3, word: 'marked' },
  { grade: 4, word: 'severe' },
];

const keyOf = (zone: NamedZone): string => `${zone.artefact_id}/${zone.zone_id}`;

const graded = (grade: number): string =>
  Number.isInteger(grade) ? String(grade) : grade.toFixed(1);

function ZoneFigure({
  own,
  mark,
  zone,
}: {
  own: ZoneDefects;
  mark: ContenderMark;
  zone: NamedZone;
}) {
  const severity = own.worst?.severity ?? 0;
  const said = own.worst ? inWords(own.worst.defect) : 'clean';
  return (
    <button
      type="button"
      className="inline-flex items-center gap-1.5 figure text-left font-sans"
      data-figure={addressOf(
        'defects',
        'zones',
        `${mark.contender_id}.${zone.artefact_id}/${zone.zone_id}.mean`,
      )}
      data-hint={`found on ${own.found} of ${own.specimens}, mean ${own.mean.toFixed(1)}`}
    >
      <GradeDisc grade={severity} />
      <span>
        <span className="font-mono">{graded(severity)}</span>{' '}
        <span className="text-xs text-ink-2">{said}</span>
      </span>
    </button>
  );
}
