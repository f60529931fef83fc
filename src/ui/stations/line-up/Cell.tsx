import { elementOf } from '../../kit/event-target';
import {
  useEffect,
  useRef,
  useState,
  type Dispatch,
  type KeyboardEvent,
  type SetStateAction,
  type RefObject,
} from 'react';

interface CellProps {
  /** Where it stands in the grid. */
  row: number;
  column: number;
  /** Says what it is, for those who do not see the heads. */
  label: string;
  /** What it shows; null where it is not known. */
  text: string | null;
  /** What stands in the field when it is typed into. */
  typed?: string;
  /** Whether it is as the one beside it. */
  isDitto?: boolean;
  isBold?: boolean;
  /** Where its value is from, for those who ask. */
  hint?: string;
  /** What else is said in it. */
  more?: string | null;
  /** Whether that is a warning. */
  isWarning?: boolean;
  choices?: readonly { value: string; label: string }[];
  /** Takes what was typed; the answer is what is wrong with it, or null. */
  onCommit: (typed: string) => Promise<string | null>;
}

/** What was typed into a cell and is on its way, or was refused. */
interface Sent {
  text: string;
  /** Why it is not saved; null while it is on its way. */
  fault: string | null;
}

/**
 * A cell of the line-up that is typed into in place: Enter or a letter opens it, Enter saves it, Esc leaves it. It
 * closes at once and shows what was typed; the answer changes what it shows and never where the focus is. What the
 * server refuses stays there, with the reason, to be typed again.
 */
export function Cell(props: CellProps) {
  const { row, column, label, text, isDitto = false, isBold = false, choices } = props;
  const [draft, setDraft] = useState<string | null>(null);
  const [sent, setSent] = useState<Sent | null>(null);
  const name = `${row}-${column}`;
  const button = useRef<HTMLButtonElement>(null);
  // Whether a key closed the cell: the focus stays in it then. Leaving it by Tab or a click takes it elsewhere.
  const isClosedByKey = useRef(false);
  useEffect(() => {
    if (draft !== null || !isClosedByKey.current) return;
    isClosedByKey.current = false;
    button.current?.focus();
  }, [draft]);
  const latest = useRef(0);
  const save = async (value: string) => {
    setDraft(null);
    if (value === (sent?.text ?? props.typed ?? text ?? '') && !sent?.fault) return;
    latest.current += 1;
    const own = latest.current;
    setSent({ text: value, fault: null });
    const fault = await props.onCommit(value);
    // What was typed after it is what the cell shows.
    if (own === latest.current) setSent(fault === null ? null : { text: value, fault });
  };
  if (draft !== null) {
    const common = {
      'aria-label': label,
      autoFocus: true,
      className: 'field !min-h-[28px] !px-1.5',
      onKeyDown: (event: KeyboardEvent) => {
        if (event.key === 'Escape') {
          event.stopPropagation();
          isClosedByKey.current = true;
          setDraft(null);
          setSent((known) => (known?.fault ? null : known));
        } else if (event.key === 'Enter') {
          event.preventDefault();
          isClosedByKey.current = true;
          void save(draft);
        }
      },
      onBlur: () => {
        if (!isClosedByKey.current) void save(draft);
      },
    };
    return (
      <CellEntry
        choices={choices}
        common={common}
        draft={draft}
        setDraft={setDraft}
        isClosedByKey={isClosedByKey}
        save={save}
      />
    );
  }
  const open = (first?: string) => setDraft(first ?? sent?.text ?? props.typed ?? text ?? '');
  // A word that is on its way stands there as its choice says it.
  const worded = (value: string) => choices?.find((one) => one.value === value)?.label ?? value;
  const shown = sent ? worded(sent.text) || null : text;
  return (
    <td className={`p-0 ${isDitto ? 'bg-desk/40' : ''}`}>
      <CellButton
        button={button}
        name={name}
        sent={sent}
        hint={props.hint}
        row={row}
        column={column}
        label={label}
        shown={shown}
        more={props.more}
        isBold={isBold}
        open={open}
        save={save}
        setSent={setSent}
        choices={choices}
        isDitto={isDitto}
        isWarning={props.isWarning}
      />
      {sent?.fault && (
        <span role="alert" className="block px-2 text-2xs text-warn">
          {sent.fault}
        </span>
      )}
    </td>
  );
}

interface CellButtonProps {
  button: RefObject<HTMLButtonElement | null>;
  name: string;
  sent: Sent | null;
  hint: string | undefined;
  row: number;
  column: number;
  label: string;
  shown: string | null;
  more: string | null | undefined;
  isBold: boolean;
  open: (first?: string) => void;
  save: (value: string) => Promise<void>;
  setSent: Dispatch<SetStateAction<Sent | null>>;
  choices: readonly { value: string; label: string }[] | undefined;
  isDitto: boolean;
  isWarning: boolean | undefined;
}

/** A cell that is not typed into: Enter or a letter opens it. */
function CellButton({
  button,
  name,
  sent,
  hint,
  row,
  column,
  label,
  shown,
  more,
  isBold,
  open,
  save,
  setSent,
  choices,
  isDitto,
  isWarning,
}: CellButtonProps) {
  return (
    <button
      ref={button}
      type="button"
      data-cell={name}
      data-refused={sent?.fault != null ? '' : undefined}
      data-hint={hint}
      tabIndex={row === 0 && column === 0 ? 0 : -1}
      aria-label={`${label}: ${[shown ?? 'not known', more].filter(Boolean).join(' ')}`}
      className={
        'block min-h-[28px] w-full border-0 bg-transparent px-2 py-1 text-left ' +
        `${shown === null ? 'unknown' : ''} ${isBold ? 'font-semibold' : ''}`
      }
      onClick={() => open()}
      onKeyDown={(event) => {
        if (event.key === 'Delete' || event.key === 'Backspace') {
          event.preventDefault();
          if (shown !== null) void save('');
        } else if (event.key === 'Escape' && sent?.fault) setSent(null);
        else if (event.key === 'F2') open();
        else if (
          event.key.length === 1 &&
          /\S/.test(event.key) &&
          !event.ctrlKey &&
          !event.metaKey &&
          !choices
        ) {
          event.preventDefault();
          open(event.key);
        }
      }}
    >
      {shown === null ? (
        <>&nbsp;</>
      ) : isDitto && !sent ? (
        <span className="text-ink-2">″</span>
      ) : (
        shown
      )}
      {sent && !sent.fault && <span className="text-2xs text-ink-2"> saving …</span>}
      {more && ' '}
      {more && (
        <b className={`block text-2xs ${isWarning ? 'font-normal text-warn' : ''}`}>{more}</b>
      )}
    </button>
  );
}

interface CellEntryProps {
  choices: readonly { value: string; label: string }[] | undefined;
  common: {
    'aria-label': string;
    autoFocus: boolean;
    className: string;
    onKeyDown: (event: KeyboardEvent) => void;
    onBlur: () => void;
  };
  draft: string;
  setDraft: Dispatch<SetStateAction<string | null>>;
  isClosedByKey: RefObject<boolean>;
  save: (value: string) => Promise<void>;
}

/** A cell that is typed into. */
function CellEntry({ choices, common, draft, setDraft, isClosedByKey, save }: CellEntryProps) {
  return (
    <td className="px-1 py-0.5">
      {choices ? (
        <select
          {...common}
          value={draft}
          onChange={(event) => {
            setDraft(event.target.value);
            isClosedByKey.current = true;
            void save(event.target.value);
          }}
        >
          <option value="">not known</option>
          {choices.map(({ value, label: words }) => (
            <option key={value} value={value}>
              {words}
            </option>
          ))}
        </select>
      ) : (
        <input
          {...common}
          // The letter that opened it was typed too.
          data-dirty={draft}
          value={draft}
          onChange={(event) => setDraft(event.target.value)}
        />
      )}
    </td>
  );
}

/** Moves from cell to cell by the arrow keys. */
export function moveInGrid(event: KeyboardEvent<HTMLElement>): void {
  const steps: Record<string, readonly [number, number]> = {
    ArrowUp: [-1, 0],
    ArrowDown: [1, 0],
    ArrowLeft: [0, -1],
    ArrowRight: [0, 1],
  };
  const step = steps[event.key];
  const at = elementOf(event)?.dataset.cell;
  if (!step || at === undefined) return;
  const [row = 0, column = 0] = at.split('-').map(Number);
  const next = event.currentTarget.querySelector<HTMLElement>(
    `[data-cell="${row + step[0]}-${column + step[1]}"]`,
  );
  if (!next) return;
  event.preventDefault();
  next.focus();
}
