import type { ContenderMark } from '../../core/model/study';
import type { Aftercare } from '../../core/measures/surface';
import { fixed } from '../lib/format';
import { ContenderHeads } from '../marks/ContenderHeads';
import { GradeDisc } from '../marks/GradeDisc';
import { Unknown, UnknownCell } from '../marks/Unknown';
import { Leaving } from '../kit/Leaving';

interface AfterWorkProps {
  marks: readonly ContenderMark[];
  aftercare: Record<string, Record<string, Aftercare>>;
  artefacts: Readonly<Record<string, string>>;
  reference: string | null;
}

/** What hands do to a part once it is printed, minutes a part. */
export function AfterWork({ marks, aftercare, artefacts, reference }: AfterWorkProps) {
  const keys = [
    ...new Set(marks.flatMap((mark) => Object.keys(aftercare[mark.contender_id] ?? {}))),
  ];
  if (keys.length === 0) return null;
  return (
    <section className="min-w-0 sheet" aria-labelledby="after-work">
      <h2 id="after-work" className="border-b border-line px-3 py-2 font-semibold">
        Post-processing{' '}
        <span className="text-xs font-normal text-ink-2">minutes per part, damage</span>
      </h2>
      <Leaving>
        <table className="w-full">
          <ContenderHeads first="artefact" isFigure marks={marks} reference={reference} />
          <tbody>
            {keys.sort().map((key) => (
              <tr key={key} className="border-b border-line-soft">
                <th scope="row" className="px-2 py-1 text-left font-normal">
                  {artefacts[key] ?? key}
                </th>
                {marks.map((mark) => {
                  const own = aftercare[mark.contender_id]?.[key];
                  if (!own) return <UnknownCell key={mark.contender_id} why="not looked at" />;
                  const { estimate, low, high } = own.minutes;
                  return (
                    <td key={mark.contender_id} className="px-2 text-right whitespace-nowrap">
                      {estimate === null ? (
                        <Unknown why={own.minutes.notes?.join('; ') ?? 'not known'} />
                      ) : (
                        <span className="font-mono">{fixed(estimate, 1)}</span>
                      )}{' '}
                      {own.damage_max !== null && (
                        <>
                          <GradeDisc grade={own.damage_max} size={16} />
                          <span className="sr-only">worst damage {own.damage_max}</span>
                        </>
                      )}
                      <span className="block text-xs text-ink-2">
                        {low === null || high === null
                          ? `${own.specimens} looked at, no interval`
                          : `${fixed(Math.max(0, low), 1)} … ${fixed(high, 1)}`}
                      </span>
                    </td>
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
