import { inWords, type ContenderMark } from '../../core/study';
import type { PhotoFigure } from '../../core/surface';
import { ContenderHeads } from '../marks/ContenderHeads';
import { UnknownCell } from '../marks/Unknown';
import { Leaving } from '../kit/Leaving';

interface PhotoFiguresProps {
  marks: readonly ContenderMark[];
  photo: Record<string, Record<string, PhotoFigure>>;
  artefacts: Readonly<Record<string, string>>;
  reference: string | null;
}

/** What is compared by each measure, and how it is written. */
const FIGURES: Record<string, { what: string; say: (value: number) => string }> = {
  ringing: { what: 'ringing, amplitude', say: (value) => value.toFixed(4) },
  'layer-lines': { what: 'banding, contrast', say: (value) => value.toFixed(4) },
  strings: { what: 'strings, covered', say: (value) => `${(100 * value).toFixed(2)} %` },
  gaps: { what: 'gaps, area', say: (value) => `${(100 * value).toFixed(2)} %` },
  texture: { what: 'texture, contrast', say: (value) => value.toFixed(4) },
};

/** Figures measured on photos, each in its own light, with intervals and with what was not found. */
export function PhotoFigures({ marks, photo, artefacts, reference }: PhotoFiguresProps) {
  const keys = [...new Set(marks.flatMap((mark) => Object.keys(photo[mark.contender_id] ?? {})))];
  if (keys.length === 0) return null;
  return (
    <section className="min-w-0 sheet" aria-labelledby="photo-figures">
      <header className="border-b border-line px-3 py-2">
        <h2 id="photo-figures" className="font-semibold">
          Measured on photos
        </h2>
        <p className="text-xs text-ink-2">
          only photos of one light are put together; smaller is better
        </p>
      </header>
      <Leaving>
        <table className="w-full">
          <ContenderHeads first="figure" isFigure marks={marks} reference={reference} />
          <tbody>
            {keys.sort().map((key) => {
              const [artefact = '', measure = '', light = ''] = key.split('/');
              const { what, say } = FIGURES[measure] ?? { what: measure, say: String };
              return (
                <tr key={key} className="border-b border-line-soft">
                  <th scope="row" className="px-2 py-1 text-left font-normal">
                    {what}{' '}
                    <span className="text-xs text-ink-2">
                      {artefacts[artefact] ?? artefact}, {inWords(light)} light
                    </span>
                  </th>
                  {marks.map((mark) => {
                    const own = photo[mark.contender_id]?.[key];
                    return own && own.figure.estimate !== null ? (
                      <td
                        key={mark.contender_id}
                        className="px-2 text-right whitespace-nowrap"
                        tabIndex={own.notes.length > 0 ? 0 : undefined}
                        data-hint={own.notes.join('; ') || undefined}
                      >
                        <Figure own={own} say={say} />
                      </td>
                    ) : (
                      <UnknownCell
                        key={mark.contender_id}
                        why={own ? [...(own.figure.notes ?? []), ...own.notes].join('; ') : 'not measured'} // prettier-ignore
                      />
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

function Figure({ own, say }: { own: PhotoFigure; say: (value: number) => string }) {
  const { estimate, low, high } = own.figure;
  return (
    <>
      <span className="font-mono">{say(estimate ?? 0)}</span>
      <span className="block text-xs text-ink-2">
        {own.found !== null && `found on ${own.found} of ${own.specimens} · `}
        {low === null || high === null ? 'no interval' : `${say(low)} … ${say(high)}`}
      </span>
    </>
  );
}
