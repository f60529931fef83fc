import type { DossierEntry } from '../../server/line-up/dossier';
import { Leaving } from '../kit/Leaving';
import { shortTime } from '../lib/format';

interface TimeLineProps {
  entries: readonly DossierEntry[];
  /** Prints that were made with another firmware than the machine's now. */
  outdated: readonly string[];
}

const HEIGHT = 92;
const ROWS = { print: 30, incident: 54, change: 74 };

/** A machine's prints, incidents and changes on one line of time. */
export function TimeLine({ entries, outdated }: TimeLineProps) {
  if (entries.length === 0) return <p className="sheet p-3 text-ink-2">Nothing is known yet.</p>;
  const times = entries.map((entry) => Date.parse(entry.at));
  const from = Math.min(...times);
  const to = Math.max(...times, from + 1);
  const x = (at: string) => `${(10 + (86 * (Date.parse(at) - from)) / (to - from)).toFixed(2)}%`;
  const label = `From ${shortTime(new Date(from).toISOString())} to ${shortTime(new Date(to).toISOString())}: ${entries.filter((one) => one.kind === 'print').length} prints, ${entries.filter((one) => one.kind === 'incident').length} incidents, ${entries.filter((one) => one.kind === 'change').length} changes`;
  const figures = [
    ['time', 'kind', 'what', 'outcome'],
    ...entries.map((entry) => [entry.at, entry.kind, entry.text, entry.outcome ?? null]),
  ];
  return (
    <Leaving isPicture name="Time line" figures={figures}>
      <svg className="block w-full sheet" height={HEIGHT} role="img" aria-label={label}>
        {Object.entries(ROWS).map(([kind, y]) => (
          <g key={kind}>
            <text x={10} y={y + 4} fontSize={11} fill="var(--ink-2)">
              {kind}s
            </text>
            <line x1="10%" x2="96%" y1={y} y2={y} stroke="var(--line-soft)" />
          </g>
        ))}
        <text x="10%" y={13} fontSize={11} fill="var(--ink-2)" className="font-mono">
          {shortTime(new Date(from).toISOString())}
        </text>
        <text
          x="96%"
          y={13}
          fontSize={11}
          fill="var(--ink-2)"
          textAnchor="end"
          className="font-mono"
        >
          {shortTime(new Date(to).toISOString())}
        </text>
        {entries.map((entry, at) => {
          const hint = `${shortTime(entry.at)} ${entry.text}`;
          if (entry.kind === 'print') {
            const isGood = entry.outcome === 'success' || entry.outcome === 'rescued';
            const isOld = outdated.includes(entry.print_id ?? '');
            return (
              <circle
                key={at}
                cx={x(entry.at)}
                cy={ROWS.print}
                r={4.5}
                fill={isGood ? 'var(--sheet)' : 'var(--ink)'}
                stroke={isOld ? 'var(--large)' : 'var(--ink)'}
                strokeWidth={1.5}
                strokeDasharray={isOld ? '2 2' : undefined}

                data-hint={hint}
              />
            );
          }
          return entry.kind === 'incident' ? (
            <line
              key={at}
              x1={x(entry.at)}
              x2={x(entry.at)}
              y1={ROWS.incident - 7}
              y2={ROWS.incident + 7}
              stroke="var(--plum)"
              strokeWidth={3}

              data-hint={hint}
            />
          ) : (
            <line
              key={at}
              x1={x(entry.at)}
              x2={x(entry.at)}
              y1={18}
              y2={ROWS.change + 7}
              stroke="var(--small)"
              strokeWidth={1.5}
              strokeDasharray="4 2"

              data-hint={hint}
            />
          );
        })}
      </svg>
    </Leaving>
  );
}
