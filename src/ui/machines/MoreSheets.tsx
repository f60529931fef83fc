import { inWords } from '../../core/model/study/labels';
import type { MachineDossier } from '../../contract/workshop';
import { counted, fixed, shortTime } from '../lib/format';
import { GradeDisc } from '../marks/GradeDisc';
import { Sheet } from './Sheet';

/** What must be tested again since the last firmware. */
export function AgainSheet({
  again,
  firmware,
}: Pick<MachineDossier, 'again'> & { firmware: string | null }) {
  if (again.length === 0) return null;
  return (
    <Sheet title="To test again" about={firmware ? `since firmware ${firmware}` : ''}>
      <ul className="px-3 py-1.5">
        {again.map((one) => (
          <li key={`${one.kind} ${one.what}`} className="py-0.5">
            {one.kind === 'prints' ? one.what : inWords(one.what)}{' '}
            <span className="text-2xs text-ink-2">
              {one.kind === 'prints'
                ? `${counted(one.n, 'print')} of ${one.firmware}, none since`
                : `${counted(one.n, 'trial')} before it, none since`}
            </span>
          </li>
        ))}
      </ul>
    </Sheet>
  );
}

const STATES = ['idle', 'standby', 'printing', 'fans-full'];

/** How loud it is, by state and distance. */
export function NoiseSheet({ noise }: Pick<MachineDossier, 'noise'>) {
  const ordered = [...noise].sort(
    (a, b) => STATES.indexOf(a.state) - STATES.indexOf(b.state) || a.distance_m - b.distance_m,
  );
  const loudest = Math.max(...noise.map((row) => row.db_a), 60);
  return (
    <Sheet
      title="Noise"
      about="dB(A)"
      isEmpty={noise.length === 0}
      empty="Its noise has not been measured."
    >
      <table className="w-full">
        <tbody>
          {ordered.map((row, at) => (
            <tr key={at} className="border-b border-line-soft">
              <th scope="row" className="px-2 py-1 text-left font-normal whitespace-nowrap">
                {inWords(row.state)} <span className="text-ink-2">at {row.distance_m} m</span>
              </th>
              <td className="w-full px-2">
                <svg className="block w-full" height={8} aria-hidden="true">
                  <rect
                    width={`${((100 * Math.max(0, row.db_a - 20)) / (loudest - 20)).toFixed(1)}%`}
                    height={8}
                    fill="var(--ink-2)"
                  />
                </svg>
              </td>
              <td className="px-2 text-right font-mono">{fixed(row.db_a, 1)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </Sheet>
  );
}

/** What was asked of the maker, and what came of it. */
export function EnquirySheet({ enquiries }: Pick<MachineDossier, 'enquiries'>) {
  return (
    <Sheet
      title="Asked of the maker"
      isEmpty={enquiries.length === 0}
      empty="Nothing was asked of the maker."
    >
      <ul className="px-3 py-1.5">
        {enquiries.map((row, at) => (
          <li key={at} className="py-1">
            {row.matter}
            <span className="block text-2xs text-ink-2">
              {shortTime(row.at)} · <b className="text-ink">{row.outcome}</b>
              {row.answered_at && ` after ${days(row.at, row.answered_at)}`}
              {row.firmware && ` in firmware ${row.firmware}`}
              {row.note && ` · ${row.note}`}
            </span>
          </li>
        ))}
      </ul>
    </Sheet>
  );
}

function days(from: string, to: string): string {
  const hours = (Date.parse(to) - Date.parse(from)) / 3_600_000;
  return hours < 48
    ? counted(Math.max(1, Math.round(hours)), 'hour')
    : counted(Math.round(hours / 24), 'day');
}

/** What others say: shown apart, never computed with. */
export function BorrowedSheet({ borrowed }: Pick<MachineDossier, 'borrowed'>) {
  if (borrowed.length === 0) return null;
  return (
    <Sheet title="Borrowed" about="reported elsewhere, not used in calculations">
      <ul className="px-3 py-1.5 text-ink-2 italic">
        {borrowed.map((row, at) => (
          <li key={at} className="py-0.5">
            “{row.statement}”{' '}
            <span className="text-2xs not-italic">
              {row.source}
              {row.trust !== null && (
                <span data-hint={`trusted ${row.trust} of 4`}>
                  {' '}
                  <GradeDisc grade={row.trust} size={12} />
                  <span className="sr-only">trusted {row.trust} of 4</span>
                </span>
              )}
            </span>
          </li>
        ))}
      </ul>
    </Sheet>
  );
}

/** What was fitted, mended and updated, and what each part has worked for since. */
export function ChangeSheet({ changes }: Pick<MachineDossier, 'changes'>) {
  return (
    <Sheet
      title="Parts and repairs"
      isEmpty={changes.length === 0}
      empty="Nothing was fitted or mended."
    >
      <ul className="px-3 py-1.5">
        {changes.map(({ change, wear }, at) => (
          <li key={at} className="flex items-baseline gap-2 py-0.5">
            <span className="min-w-0 flex-1">
              {change.what}{' '}
              <span className="text-2xs text-ink-2">
                {inWords(change.kind)} · {shortTime(change.at).slice(0, 10)}
                {change.operator && ` · ${change.operator}`}
              </span>
            </span>
            {wear && (
              <span className="text-right text-2xs whitespace-nowrap text-ink-2">
                <span className="font-mono text-xs text-ink">{fixed(wear.hours, 1)} h</span>{' '}
                {wear.until === null ? 'since' : 'until done again'}
              </span>
            )}
          </li>
        ))}
      </ul>
    </Sheet>
  );
}
