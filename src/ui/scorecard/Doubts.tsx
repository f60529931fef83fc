import { fewestPrintsAsked, describePrintsNeeded } from '../../core/text/phrasing/prints-needed';
import type { PairRow } from '../../core/statistics/compare';
import type { Scorecard } from '../../core/answers/scorecard';
import { formatShare } from '../../core/text/phrasing';
import type { FigureWords } from '../../core/answers/figure-names';
import { Leaving } from '../kit/Leaving';

interface DoubtsProps {
  filled: Scorecard;
  wordsOf: (key: string) => FigureWords;
  /** Differences against the reference: how many prints would settle them. */
  differences: Readonly<Record<string, readonly PairRow[]>>;
}

/** What the result depends on: how often another comes first while only that moves within what is known. */
export function Doubts({ filled, wordsOf, differences }: DoubtsProps) {
  if (!filled.doubt) return null;
  const rows = Object.entries(filled.doubt).sort(([, a], [, b]) => b - a);
  const most = Math.max(0.05, ...rows.map(([, share]) => share));
  return (
    <section className="min-w-0 sheet" aria-labelledby="doubts">
      <header className="border-b border-line px-3 py-2">
        <h2 id="doubts" className="font-semibold">
          What the result depends on
        </h2>
        <p className="text-xs text-ink-2">
          how often another would come first if only this moved within what is known
        </p>
      </header>
      <Leaving>
        <table className="w-full">
          <thead className="sr-only">
            <tr>
              <th>what</th>
              <th>strip</th>
              <th>share of simulations</th>
              <th>what would settle it</th>
            </tr>
          </thead>
          <tbody>
            {rows.map(([key, share]) => (
              <tr key={key}>
                <th scope="row" className="w-[38%] px-3 py-0.5 text-left font-normal">
                  {key === 'weights' ? 'the weights' : wordsOf(key).label}
                </th>
                <td className="w-[26%] px-1">
                  <svg className="block w-full" height={10} aria-hidden="true">
                    <rect
                      width={`${((100 * share) / most).toFixed(1)}%`}
                      height={10}
                      fill="var(--plum)"
                    />
                  </svg>
                </td>
                <td className="px-2 text-right font-mono whitespace-nowrap">
                  {formatShare(share)}
                </td>
                <td className="px-2 text-xs text-ink-2">{hint(key, share, filled, differences)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </Leaving>
    </section>
  );
}

/** What would make it firmer, where that can be said. */
function hint(
  key: string,
  share: number,
  { contenders }: Scorecard,
  differences: DoubtsProps['differences'],
): string {
  if (share === 0) return '';
  if (key === 'weights') return 'This is your opinion, not a measurement';
  const unknown = Object.values(contenders).some(
    (own) => own.in && own.values[key]?.utility === null,
  );
  const open = (differences[key] ?? []).filter(
    (row) => row.prints_needed !== null && contenders[row.contender]?.in,
  );
  const [most] = open.sort((a, b) => (fewestPrintsAsked(b) ?? 0) - (fewestPrintsAsked(a) ?? 0));
  const prints = most ? describePrintsNeeded(most) : null;
  if (prints !== null) return prints;
  if (unknown) return 'it is not known for every contender';
  return key === 'success' ? 'Print more with the contenders still in the race' : '';
}
