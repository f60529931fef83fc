import { useEffect, useRef, useState, type KeyboardEvent } from 'react';

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

/** A cell of the line-up that is typed into in place: Enter or a letter opens it, Enter keeps it, Esc leaves it. */
export function Cell(props: CellProps) {
  const { row, column, label, text, isDitto = false, isBold = false, choices } = props;
  const [draft, setDraft] = useState<string | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const [isSaving, setSaving] = useState(false);
  const name = `${row}-${column}`;
  const button = useRef<HTMLButtonElement>(null);
  // Whether the cell is to have the focus again once it is closed; leaving it by Tab takes it elsewhere.
  const isComingBack = useRef(false);
  useEffect(() => {
    if (draft !== null || !isComingBack.current) return;
    isComingBack.current = false;
    button.current?.focus();
  }, [draft]);
  const keep = async (value: string) => {
    if (isSaving) return;
    if (value === (props.typed ?? text ?? '')) {
      setDraft(null);
      setFault(null);
      return;
    }
    setSaving(true);
    const wrong = await props.onCommit(value);
    setSaving(false);
    if (wrong !== null) isComingBack.current = false;
    setFault(wrong);
    if (wrong === null) setDraft(null);
  };
  if (draft !== null) {
    const common = {
      'aria-label': label,
      'aria-invalid': fault !== null,
      autoFocus: true,
      className: 'field !min-h-[28px] !px-1.5',
      onKeyDown: (event: KeyboardEvent) => {
        if (event.key === 'Escape') {
          event.stopPropagation();
          isComingBack.current = true;
          setDraft(null);
          setFault(null);
        } else if (event.key === 'Enter') {
          event.preventDefault();
          isComingBack.current = true;
          void keep(draft);
        }
      },
      onBlur: () => {
        if (!isComingBack.current) void keep(draft);
      },
    };
    return (
      <td className="px-1 py-0.5">
        {choices ? (
          <select
            {...common}
            value={draft}
            onChange={(event) => {
              setDraft(event.target.value);
              isComingBack.current = true;
              void keep(event.target.value);
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
          <input {...common} value={draft} onChange={(event) => setDraft(event.target.value)} />
        )}
        {fault && (
          <span role="alert" className="block text-2xs text-warn">
            {fault}
          </span>
        )}
      </td>
    );
  }
  const open = (first?: string) => setDraft(first ?? props.typed ?? text ?? '');
  return (
    <td className={`p-0 ${isDitto ? 'bg-desk/40' : ''}`}>
      <button
        ref={button}
        type="button"
        data-cell={name}
        data-hint={props.hint}
        tabIndex={row === 0 && column === 0 ? 0 : -1}
        aria-label={`${label}: ${[text ?? 'not known', props.more].filter(Boolean).join(' ')}`}
        className={`block min-h-[28px] w-full border-0 bg-transparent px-2 py-1 text-left ${text === null ? 'unknown' : ''} ${isBold ? 'font-semibold' : ''}`}
        onClick={() => open()}
        onKeyDown={(event) => {
          if (event.key === 'Delete' || event.key === 'Backspace') {
            event.preventDefault();
            if (text !== null) void keep('');
          } else if (event.key === 'F2') open();
          else if (event.key.length === 1 && /\S/.test(event.key) && !event.ctrlKey && !event.metaKey && !choices) {
            event.preventDefault();
            open(event.key);
          }
        }}
      >
        {text === null ? <>&nbsp;</> : isDitto ? <span className="text-ink-2">″</span> : text}
        {props.more && ' '}
        {props.more && (
          <b className={`block text-2xs ${props.isWarning ? 'font-normal text-warn' : ''}`}>{props.more}</b>
        )}
      </button>
    </td>
  ); // prettier-ignore
}

/** Moves from cell to cell by the arrow keys. */
export function moveInGrid(event: KeyboardEvent<HTMLElement>): void {
  const steps: Record<string, readonly [number, number]> = {
    ...{ ArrowUp: [-1, 0], ArrowDown: [1, 0], ArrowLeft: [0, -1], ArrowRight: [0, 1] },
  };
  const step = steps[event.key];
  const at = (event.target as HTMLElement).dataset.cell;
  if (!step || at === undefined) return;
  const [row = 0, column = 0] = at.split('-').map(Number);
  const next = event.currentTarget.querySelector<HTMLElement>(
    `[data-cell="${row + step[0]}-${column + step[1]}"]`,
  );
  if (!next) return;
  event.preventDefault();
  next.focus();
}
