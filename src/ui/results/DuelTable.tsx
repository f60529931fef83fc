import { fewestPrintsAsked } from '../../core/text/phrasing/prints-needed';
import type { PairRow } from '../../core/statistics/compare';
import type { CriterionEvidence } from '../../core/answers/scorecard';
import type { ContenderMark } from '../../core/model/study';
import { figureText } from '../../core/answers/figure-names';
import type { DuelFigure } from '../../contract/results';
import { Leaving } from '../kit/Leaving';
import { signed, ends } from '../lib/format';
import { Badge } from '../marks/Badge';
import { ContenderName } from '../marks/ContenderName';
import { Unknown } from '../marks/Unknown';
import { VerdictGlyph } from '../marks/VerdictGlyph';
import { DifferenceStrip } from './DifferenceStrip';

interface DuelTableProps {
  own: ContenderMark;
  other: ContenderMark;
  figures: readonly DuelFigure[];
}

/** Two contenders, figure by figure: each value, the difference with its interval, the verdict. */
export function DuelTable({ own, other, figures }: DuelTableProps) {
  return (
    <section className="min-w-0 sheet" aria-label="Figure by figure">
      <Leaving isPicture name="head to head">
        <table className="w-full sm:min-w-[720px]">
          <thead>
            <tr className="border-b border-line">
              <th className="th max-sm:w-[62%]">figure</th>
              {[own, other].map((mark) => (
                <th key={mark.contender_id} className="th">
                  <span className="sm:hidden">
                    <Badge mark={mark} isReference={mark === other} />
                  </span>
                  <span className="max-sm:hidden">
                    <ContenderName mark={mark} isReference={mark === other} />
                  </span>
                </th>
              ))}
              <th className="w-[24%] th max-sm:hidden">difference</th>
              <th className="th text-right max-sm:hidden">with its interval</th>
              <th className="th max-sm:hidden">verdict</th>
            </tr>
          </thead>
          <tbody>
            {figures.map((figure, at) => {
              const { key, words, row, delta } = figure;
              const isFirst = figures[at - 1]?.words.group !== words.group;
              return (
                <tr key={key} className="border-b border-line-soft">
                  <th
                    scope="row"
                    className="px-2 py-1 text-left font-normal"
                    data-figure-text={words.label}
                  >
                    {isFirst && <b className="block text-xs">{words.group}</b>}
                    {words.label}
                    {words.unit && <span className="text-xs text-ink-2">, {words.unit}</span>}
                    {/* On a phone the verdict stands under its figure. */}
                    {row && (
                      <span className="block text-xs text-ink-2 sm:hidden">
                        <Judged row={row} /> · <Difference figure={figure} />
                      </span>
                    )}
                  </th>
                  <td className="px-2 font-mono">
                    <Value evidence={figure.own} words={words} />
                  </td>
                  <td className="px-2 font-mono">
                    <Value evidence={figure.other} words={words} />
                  </td>
                  <td className="px-1 max-sm:hidden">
                    {row && (
                      <DifferenceStrip
                        difference={row.difference}
                        delta={delta}
                        isDecided={row.verdict === 'better' || row.verdict === 'worse'}
                      />
                    )}
                  </td>
                  <td className="px-2 text-right font-mono text-xs whitespace-nowrap max-sm:hidden">
                    <Difference figure={figure} />
                  </td>
                  <td className="px-2 text-xs whitespace-nowrap max-sm:hidden">
                    {row && <Judged row={row} />}
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </Leaving>
    </section>
  );
}

/** A verdict in a sign and a word, with the fewest prints that would tell; its hint has both numbers. */
const Judged = ({ row }: { row: PairRow }) => (
  <>
    <VerdictGlyph {...row} /> {row.verdict.replace('_', ' ')}
    {row.prints_needed !== null && ` · ${fewestPrintsAsked(row)} prints each`}
  </>
);

interface ValueProps {
  evidence: CriterionEvidence | null;
  words: DuelFigure['words'];
}

function Value({ evidence, words }: ValueProps) {
  if (!evidence) return <Unknown />;
  if (evidence.bound === 'fails') return <>not the easiest</>;
  if (evidence.value === null) return <>{evidence.bound} all</>;
  return <>{figureText({ ...words, unit: '' }, evidence.value)}</>;
}

/** A difference in the unit of its figure; of time and cost in per cent. */
function Difference({ figure: { key, words, own, other, row } }: { figure: DuelFigure }) {
  const say = (value: number) => {
    if (key === 'time_index') return `${signed(100 * (Math.exp(value) - 1), 0)} %`;
    return key === 'success'
      ? `${signed(100 * value, 0)} points`
      : signed(words.factor * value, words.digits);
  };
  if (row?.difference.estimate == null) {
    if (own?.value == null || other?.value == null) return null;
    return <>{signed(words.factor * (own.value - other.value), words.digits)}</>;
  }
  return (
    <>
      {say(row.difference.estimate)} <span className="text-ink-2">{ends(row.difference, say)}</span>
    </>
  );
}
