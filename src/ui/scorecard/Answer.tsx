import type { Scorecard } from '../../core/answers/scorecard';
import type { ContenderMark } from '../../core/model/study';
import { formatShare } from '../../core/text/phrasing';
import type { FigureWords } from '../../core/answers/figure-names';
import { Leaving } from '../kit/Leaving';
import { fixed } from '../lib/format';
import { ContenderName } from '../marks/ContenderName';
import { fillOf } from './colours';

interface AnswerProps {
  filled: Scorecard;
  marks: readonly ContenderMark[];
  reference: string | null;
  wordsOf: (key: string) => FigureWords;
}

/** Who scores what, of what, and how often comes first: the best above. */
export function Answer({ filled, marks, reference, wordsOf }: AnswerProps) {
  const rows = marks
    .flatMap((mark) => {
      const own = filled.contenders[mark.contender_id];
      return own ? [{ mark, own }] : [];
    })
    .sort(
      (a, b) =>
        Number(b.own.in) - Number(a.own.in) ||
        b.own.score.low + b.own.score.high - a.own.score.low - a.own.score.high,
    );
  return (
    <Leaving isPicture name="the answer">
      <table className="w-full min-w-[330px]">
        <thead>
          <tr className="border-b border-line">
            <th className="th">contender</th>
            <th className="w-[30%] th sm:w-[38%]">score</th>
            <th className="th text-right">of 100</th>
            <th className="th text-right">comes first</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ mark, own }) => {
            const { low, high } = own.score;
            const failed = own.gates.filter((gate) => gate.passed === false);
            return (
              <tr
                key={mark.contender_id}
                className={`border-b border-line-soft ${own.in ? '' : 'text-ink-2'}`}
              >
                <th scope="row" className="px-2 py-1.5 text-left font-normal">
                  <ContenderName mark={mark} isReference={mark.contender_id === reference} />
                  {failed.length > 0 && (
                    <span className="block text-2xs text-warn">
                      Excluded: fails {failed.map((gate) => wordsOf(gate.key).label).join(', ')}
                    </span>
                  )}
                </th>
                <td className="px-2">
                  <Stack filled={filled} contender={mark.contender_id} isFaint={!own.in} />
                </td>
                <td className="px-2 text-right font-mono whitespace-nowrap">
                  <b className="font-semibold">{fixed(low, 0)}</b>
                  {high - low > 0.5 && ` … ${fixed(high, 0)}`}
                </td>
                <td className="px-2 text-right font-mono whitespace-nowrap">
                  {own.first_place_share === null ? 'excluded' : formatShare(own.first_place_share)}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </Leaving>
  );
}

/** The parts of a score; what is not known is a dashed stretch that it could still gain. */
function Stack({
  filled,
  contender,
  isFaint,
}: {
  filled: Scorecard;
  contender: string;
  isFaint: boolean;
}) {
  const own = filled.contenders[contender];
  if (!own) return null;
  const parts = filled.criteria.map(({ key, weight }) => {
    const utility = own.values[key]?.utility;
    return utility == null ? 0 : 100 * weight * utility;
  });
  const range = own.score.high - own.score.low;
  return (
    <svg className="block w-full" height={16} aria-hidden="true" opacity={isFaint ? 0.35 : 1}>
      {parts.map((part, at) => {
        const before = parts.slice(0, at).reduce((sum, one) => sum + one, 0);
        return (
          <rect
            key={at}
            x={`${before.toFixed(2)}%`}
            width={`${Math.max(0, part - 0.25).toFixed(2)}%`}
            height={16}
            {...fillOf(at)}
          />
        );
      })}
      {range > 0.5 && (
        <rect
          x={`${own.score.low.toFixed(2)}%`}
          y={1}
          width={`${range.toFixed(2)}%`}
          height={14}
          fill="none"
          stroke="var(--ink-2)"
          strokeDasharray="3 2"
        />
      )}
    </svg>
  );
}
