import { timeScale, type DossierEntry } from '../../core/measures/dossier/time-line';
import { Leaving } from '../kit/Leaving';
import { counted, shortTime } from '../lib/format';

interface TimeLineProps {
  entries: readonly DossierEntry[];
  /** Prints that were made with another firmware than the machine's now. */
  outdated: readonly string[];
  /** The studies that it was in: drawn over their prints. */
  studies?: readonly { title: string; from: string | null; to: string | null }[];
}

const ROWS = { print: 34, incident: 58, change: 82 };
const HEIGHT = 98;
const [LEFT, WIDTH] = [9, 88];

/** A machine's prints, incidents and changes on one line of time; long gaps are cut short. */
export function TimeLine({ entries, outdated, studies = [] }: TimeLineProps) {
  if (entries.length === 0) return <p className="sheet p-3 text-ink-2">Nothing happened yet.</p>;
  const { place, cuts } = timeScale(entries.map((entry) => Date.parse(entry.at)));
  const percent = (share: number) => `${(LEFT + WIDTH * share).toFixed(2)}%`;
  const x = (at: string) => percent(place(Date.parse(at)));
  const times = entries.map((entry) => entry.at).sort((a, b) => Date.parse(a) - Date.parse(b));
  const count = (kind: DossierEntry['kind']) => entries.filter((one) => one.kind === kind).length;
  const [from = '', to = ''] = [times.at(0), times.at(-1)];
  const label =
    `From ${shortTime(from)} to ${shortTime(to)}: ${counted(count('print'), 'print')}, ` +
    `${counted(count('incident'), 'incident')}, ${counted(count('change'), 'change')}`;
  const figures = [
    ['time', 'kind', 'what', 'outcome'],
    ...entries.map((entry) => [entry.at, entry.kind, entry.text, entry.outcome ?? null]),
  ];
  return (
    <Leaving isPicture name="Time line" figures={figures}>
      <svg className="block w-full sheet" height={HEIGHT} role="img" aria-label={label}>
        {studies.map((study) => {
          if (study.from === null || study.to === null) return null;
          const [a, b] = [place(Date.parse(study.from)), place(Date.parse(study.to))];
          return (
            <StudySpan
              key={`${study.title} ${study.from}`}
              study={study}
              percent={percent}
              a={a}
              b={b}
            />
          );
        })}
        {Object.entries(ROWS).map(([kind, y]) => (
          <g key={kind}>
            <text x={10} y={y + 4} fontSize={11} fill="var(--ink-2)">
              {kind}s
            </text>
            <line x1={percent(0)} x2={percent(1)} y1={y} y2={y} stroke="var(--line-soft)" />
          </g>
        ))}
        {cuts.map(({ at, days }) => (
          <Gap key={at} at={at} days={days} percent={percent} />
        ))}
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
          if (entry.kind === 'incident') {
            return (
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
            );
          }
          const isRight = place(Date.parse(entry.at)) > 0.7;
          return <EntryMark key={at} hint={hint} x={x} entry={entry} isRight={isRight} />;
        })}
      </svg>
    </Leaving>
  );
}

interface EntryMarkProps {
  hint: string;
  x: (at: string) => string;
  entry: DossierEntry;
  isRight: boolean;
}

/** One thing that happened. */
function EntryMark({ hint, x, entry, isRight }: EntryMarkProps) {
  return (
    <g data-hint={hint}>
      <line
        x1={x(entry.at)}
        x2={x(entry.at)}
        y1={ROWS.print - 12}
        y2={ROWS.change + 8}
        stroke="var(--small)"
        strokeWidth={1.5}
        strokeDasharray="4 2"
      />
      {!entry.text.startsWith('firmware: prints') && (
        <text
          x={x(entry.at)}
          y={ROWS.change + 4}
          dx={isRight ? -5 : 5}
          textAnchor={isRight ? 'end' : 'start'}
          fontSize={10.5}
          fill="var(--small)"
        >
          {entry.text}
        </text>
      )}
    </g>
  );
}

interface GapProps {
  at: number;
  days: number;
  percent: (share: number) => string;
}

/** A time without anything, cut out of the line. */
function Gap({ at, days, percent }: GapProps) {
  return (
    <g data-hint={`${days} days without anything`}>
      <rect
        x={percent(at)}
        y={ROWS.print - 9}
        width={8}
        height={ROWS.change - ROWS.print + 18}
        transform="translate(-4)"
        fill="var(--sheet)"
      />
      {[-3, 2].map((shift) => (
        <svg key={shift} x={percent(at)} y={ROWS.incident - 8} overflow="visible">
          <line x1={shift} x2={shift + 4} y1={14} y2={0} stroke="var(--line)" />
        </svg>
      ))}
    </g>
  );
}

interface StudySpanProps {
  study: { title: string; from: string | null; to: string | null };
  percent: (share: number) => string;
  a: number;
  b: number;
}

/** When a study was at the machine. */
function StudySpan({ study, percent, a, b }: StudySpanProps) {
  return (
    <g data-hint={study.title}>
      <rect
        x={percent(a - 0.005)}
        y={6}
        width={`${(WIDTH * (b - a + 0.01)).toFixed(2)}%`}
        height={13}
        fill="var(--band)"
      />
      {b - a > 0.08 && (
        <svg
          x={percent(a)}
          y={6}
          width={`${(WIDTH * (b - a)).toFixed(2)}%`}
          height={13}
          overflow="hidden"
        >
          <text x={4} y={10} fontSize={10.5} fill="var(--ink-2)">
            {study.title}
          </text>
        </svg>
      )}
    </g>
  );
}
