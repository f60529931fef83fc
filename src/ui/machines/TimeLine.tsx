import { timeScale, type DossierEntry } from '../../core/measures/dossier/time-line';
import { Leaving } from '../kit/Leaving';
import { counted, shortTime } from '../lib/format';
import { useNarrow } from '../lib/use-narrow';

interface TimeLineProps {
  entries: readonly DossierEntry[];
  /** Prints that were made with another firmware than the machine's now. */
  outdated: readonly string[];
  /** The studies that it was in: drawn over their prints. */
  studies?: readonly { title: string; from: string | null; to: string | null }[];
}

const ROWS = { print: 34, incident: 58, change: 82 };
const HEIGHT = 98;
/** Where the line begins, and how long it is, in per cent of the width: a phone needs more for the rows' names. */
const WIDE = { left: 9, width: 88 };
const NARROW = { left: 19, width: 76 };
type Room = typeof WIDE;

const placeIn = ({ left, width }: Room, share: number): string =>
  `${(left + width * share).toFixed(2)}%`;

/** Changes whose text is shown: what only the prints say of the firmware is a line without words. */
const hasWords = ({ kind, text }: DossierEntry): boolean =>
  kind === 'change' && !text.startsWith('firmware: prints');

/** A machine's prints, incidents and changes on one line of time; long gaps are cut short. */
export function TimeLine({ entries, outdated, studies = [] }: TimeLineProps) {
  const isNarrow = useNarrow();
  if (entries.length === 0) return <p className="sheet p-3 text-ink-2">Nothing happened yet.</p>;
  const { place, cuts } = timeScale(entries.map((entry) => Date.parse(entry.at)));
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
  const room = isNarrow ? NARROW : WIDE;
  const words = entries
    .filter(hasWords)
    .sort((one, other) => Date.parse(one.at) - Date.parse(other.at));
  return (
    <>
      <Leaving isPicture name="Time line" figures={figures}>
        <svg className="block w-full sheet" height={HEIGHT} role="img" aria-label={label}>
          {Object.entries(ROWS).map(([kind, y]) => (
            <text key={kind} x={10} y={y + 4} fontSize={11} fill="var(--ink-2)">
              {kind}s
            </text>
          ))}
          {studies.map((study) => {
            if (study.from === null || study.to === null) return null;
            const [a, b] = [place(Date.parse(study.from)), place(Date.parse(study.to))];
            return (
              <StudySpan
                room={room}
                key={`${study.title} ${study.from}`}
                study={study}
                a={a}
                b={b}
              />
            );
          })}
          {Object.values(ROWS).map((y) => (
            <line
              key={y}
              x1={placeIn(room, 0)}
              x2={placeIn(room, 1)}
              y1={y}
              y2={y}
              stroke="var(--line-soft)"
            />
          ))}
          {cuts.map(({ at, days }) => (
            <Gap key={at} x={placeIn(room, at)} days={days} />
          ))}
          {entries.map((entry, at) => (
            <EntryOnLine
              key={at}
              entry={entry}
              x={placeIn(room, place(Date.parse(entry.at)))}
              isRight={place(Date.parse(entry.at)) > 0.7}
              isNarrow={isNarrow}
              isOld={outdated.includes(entry.print_id ?? '')}
              number={words.indexOf(entry) + 1}
            />
          ))}
        </svg>
      </Leaving>
      {isNarrow && words.length > 0 && (
        <ol className="mt-1 list-inside list-decimal px-2 text-xs text-ink-2">
          {words.map((entry, at) => (
            <li key={at}>
              {shortTime(entry.at)} {entry.text}
            </li>
          ))}
        </ol>
      )}
    </>
  );
}

interface EntryOnLineProps {
  entry: DossierEntry;
  /** Where it is on the line, and whether that is on its right. */
  x: string;
  isRight: boolean;
  /** Whether there is no room for words: a number stands for them. */
  isNarrow: boolean;
  /** Whether it is a print of another firmware than the machine has now. */
  isOld: boolean;
  /** Its number in the list of changes. */
  number: number;
}

/** A print, an incident or a change. */
function EntryOnLine(props: EntryOnLineProps) {
  const { entry, x, isRight, isNarrow, isOld, number } = props;
  const hint = `${shortTime(entry.at)} ${entry.text}`;
  if (entry.kind === 'print') {
    const isGood = entry.outcome === 'success' || entry.outcome === 'rescued';
    return (
      <circle
        cx={x}
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
        x1={x}
        x2={x}
        y1={ROWS.incident - 7}
        y2={ROWS.incident + 7}
        stroke="var(--plum)"
        strokeWidth={3}
        data-hint={hint}
      />
    );
  }
  return (
    <EntryMark
      hint={hint}
      x={x}
      text={hasWords(entry) ? (isNarrow ? String(number) : entry.text) : null}
      isRight={isRight}
    />
  );
}

interface EntryMarkProps {
  hint: string;
  x: string;
  /** What is written beside it; null for nothing. */
  text: string | null;
  isRight: boolean;
}

/** A change, across all rows. */
function EntryMark({ hint, x, text, isRight }: EntryMarkProps) {
  return (
    <g data-hint={hint}>
      <line
        x1={x}
        x2={x}
        y1={ROWS.print - 12}
        y2={ROWS.change + 8}
        stroke="var(--small)"
        strokeWidth={1.5}
        strokeDasharray="4 2"
      />
      {text !== null && (
        <text
          x={x}
          y={ROWS.change + 4}
          dx={isRight ? -5 : 5}
          textAnchor={isRight ? 'end' : 'start'}
          fontSize={10.5}
          fill="var(--small)"
        >
          {text}
        </text>
      )}
    </g>
  );
}

interface GapProps {
  x: string;
  days: number;
}

/** A time without anything, cut out of the line. */
function Gap({ x, days }: GapProps) {
  return (
    <g data-hint={`${days} days without anything`}>
      <rect
        x={x}
        y={ROWS.print - 9}
        width={8}
        height={ROWS.change - ROWS.print + 18}
        transform="translate(-4)"
        fill="var(--sheet)"
      />
      {[-3, 2].map((shift) => (
        <svg key={shift} x={x} y={ROWS.incident - 8} overflow="visible">
          <line x1={shift} x2={shift + 4} y1={14} y2={0} stroke="var(--line)" />
        </svg>
      ))}
    </g>
  );
}

interface StudySpanProps {
  study: { title: string; from: string | null; to: string | null };
  room: Room;
  a: number;
  b: number;
}

/** When a study was at the machine. */
function StudySpan({ study, room, a, b }: StudySpanProps) {
  return (
    <g data-hint={study.title}>
      <rect
        x={placeIn(room, a - 0.005)}
        y={6}
        width={`${(room.width * (b - a + 0.01)).toFixed(2)}%`}
        height={13}
        fill="var(--band)"
      />
      {b - a > 0.08 && (
        <svg
          x={placeIn(room, a)}
          y={6}
          width={`${(room.width * (b - a)).toFixed(2)}%`}
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
