import { useEffect, useRef, useState } from 'react';
import { doubtReading } from '../../../core/measures/metrology/doubt';
import type { BenchDimension } from '../../../server/measure/page';
import { readNumber } from '../../lib/entry';
import { fixed, signed } from '../../lib/format';
import { ALONE_MS } from '../../lib/not-scanned';
import { VernierScale } from './VernierScale';

/** What the keys at the bench ask for besides a value. */
export type BenchCommand =
  | 'again'
  | 'undo'
  | 'unmeasurable'
  | 'zero'
  | 'blind'
  | 'up'
  | 'down'
  | 'skip'
  | 'next'
  | 'previous';

interface ReadingFieldProps {
  /** Something is being typed: the cell at hand stays at hand. */
  onTyping: () => void;
  dimension: BenchDimension;
  /** Kept readings of this cell, less their instrument's zero, mm. */
  earlier: readonly number[];
  zero_mm: number;
  onKeep: (value_mm: number) => void;
  onCommand: (command: BenchCommand) => void;
  /** Whether a typed text is a specimen's code; it is chosen then. */
  onCode: (text: string) => boolean;
  /** Told of several values that were pasted at once. */
  onPaste: (values: number[]) => void;
}

/** Letters that are commands while the field is empty. */
const LETTERS: Readonly<Record<string, BenchCommand>> = {
  r: 'again',
  u: 'undo',
  x: 'unmeasurable',
  z: 'zero',
  b: 'blind',
};

const KEYS: Readonly<Record<string, BenchCommand>> = {
  ArrowUp: 'up',
  ArrowDown: 'down',
  PageUp: 'previous',
  PageDown: 'next',
};

/** How long the message about an unknown sticker stays. */
const UNKNOWN_STICKER_MS = 6000;
const READING_FIELD = 'reading-field';

/** Puts the cursor into the field for the next reading. */
export const focusReading = (): void => document.getElementById(READING_FIELD)?.focus();

/**
 * The big field: a value, Enter, and on to the next. What is doubtful is asked about, once.
 * It begins anew, by its key, whenever another cell is at hand.
 */
export function ReadingField(props: ReadingFieldProps) {
  const { dimension, earlier, zero_mm, onKeep, onCommand, onCode, onPaste } = props;
  const input = useRef<HTMLInputElement>(null);
  const [typed, setTyped] = useState('');
  const [asked, setAsked] = useState<string | null>(null);
  const [message, setMessage] = useState<string | null>(null);
  /** A letter that is a command unless another key follows at once. */
  const alone = useRef<{ at: number; timer: ReturnType<typeof setTimeout> } | null>(null);
  const fading = useRef<ReturnType<typeof setTimeout>>(undefined);
  useEffect(() => {
    input.current?.focus();
    return () => {
      clearTimeout(alone.current?.timer);
      clearTimeout(fading.current);
    };
  }, []);

  const entry = readNumber(typed);
  const value = 'value' in entry ? entry.value : null;
  const deviation = value === null ? null : value - zero_mm - dimension.nominal_mm;

  const submit = () => {
    const text = typed.trim();
    if (text === '') {
      onCommand('skip');
      return;
    }
    if (onCode(text)) {
      setTyped('');
      return;
    }
    if ('fault' in entry && /^[a-z]\w*-?\w+$/i.test(text)) {
      // Like a sticker: it was scanned: the next sticker must not be typed behind it.
      setTyped('');
      setMessage(`No part of this study has the sticker “${text}”.`);
      clearTimeout(fading.current);
      fading.current = setTimeout(() => setMessage(null), UNKNOWN_STICKER_MS);
      return;
    }
    if ('fault' in entry) {
      setMessage(`${entry.fault}: it stays here until it is mended.`);
      return;
    }
    if (value === null || value < 0) {
      setMessage('A length cannot be below 0: it stays here until it is mended.');
      return;
    }
    const doubt = doubtReading(value - zero_mm, dimension.nominal_mm, earlier);
    if (doubt && asked !== text) {
      setAsked(text);
      const from =
        doubt.from === 'nominal'
          ? `the nominal ${fixed(dimension.nominal_mm, 2)}`
          : 'what was read here before';
      setMessage(
        `${text} is ${fixed(Math.abs(doubt.far_mm), 2)} mm ` +
          `${doubt.far_mm < 0 ? 'below' : 'above'} ${from}. Is it right? Enter again keeps it.`,
      );
      return;
    }
    setTyped('');
    setAsked(null);
    setMessage(null);
    onKeep(value);
  };

  const onKeyDown = (event: React.KeyboardEvent) => {
    const before = alone.current;
    alone.current = null;
    clearTimeout(before?.timer);
    const isLate = before !== null && event.timeStamp - before.at >= ALONE_MS;
    const due = isLate ? LETTERS[typed.toLowerCase()] : undefined;
    if (due) {
      // The page was busy: the letter had stood alone for long enough before this key was pressed.
      setTyped('');
      onCommand(due);
      if (event.key === 'Enter') return event.preventDefault();
    }
    const isEmpty = typed === '' || due !== undefined;
    const letter = LETTERS[event.key.toLowerCase()];
    const key = KEYS[event.key];
    if (event.key === 'Enter') {
      event.preventDefault();
      if (event.ctrlKey || event.metaKey) onCommand('next');
      else submit();
    } else if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'z' && isEmpty) {
      event.preventDefault();
      onCommand('undo');
    } else if (event.ctrlKey || event.metaKey || event.altKey) {
      return;
    } else if (isEmpty && letter) {
      // A sticker's code may begin with it: a letter is a command when no other key follows at once.
      const act = () => {
        alone.current = null;
        setTyped('');
        onCommand(letter);
      };
      alone.current = { at: event.timeStamp, timer: setTimeout(act, ALONE_MS) };
    } else if (key) {
      event.preventDefault();
      onCommand(key);
    } else if (event.key === 'Escape') {
      setTyped('');
      setAsked(null);
      setMessage(null);
    }
  };

  const { lower_tol_mm: lower, upper_tol_mm: upper } = dimension;
  const limits =
    lower === null && upper === null
      ? 'no limits'
      : `limits ${lower === null ? 'open' : signed(lower, 2)} … ${upper === null ? 'open' : signed(upper, 2)}`;
  const tone = deviation === null ? '' : deviation < 0 ? 'text-small' : 'text-large';
  return (
    <section className="sheet p-4" aria-label="Reading">
      <div className="flex flex-wrap items-baseline justify-between gap-2">
        <h2 className="text-base font-semibold" aria-live="polite">
          {dimension.name}
          <span className="font-normal text-ink-2"> · {placeWords(dimension)}</span>
          {earlier.length > 0 && (
            <span className="font-normal"> · reading {earlier.length + 1}</span>
          )}
        </h2>
        <p className="text-xs text-ink-2">
          nominal {fixed(dimension.nominal_mm, 2)}, {limits}
        </p>
      </div>
      <div className="mt-2 flex flex-wrap items-center gap-4">
        <input
          ref={input}
          id={READING_FIELD}
          autoFocus
          className="h-[60px] w-[190px] rounded-sm border-2 border-plum px-3 font-mono text-bench"
          aria-label={`Reading of ${dimension.name} in mm`}
          aria-describedby="reading-message"
          aria-invalid={message !== null}
          inputMode="decimal"
          autoComplete="off"
          spellCheck={false}
          value={typed}
          onChange={(event) => {
            setTyped(event.target.value);
            // It belongs to this cell, whatever others measure at the same time.
            props.onTyping();
            if (event.target.value !== asked) setMessage(null);
          }}
          onKeyDown={onKeyDown}
          onPaste={(event) => {
            const lines = event.clipboardData
              .getData('text')
              .split(/[\r\n\t]+/)
              .filter(Boolean);
            const values = lines.flatMap((line) => {
              const cell = readNumber(line);
              return 'value' in cell && cell.value !== null ? [cell.value] : [];
            });
            if (lines.length < 2 || values.length < lines.length) return;
            event.preventDefault();
            onPaste(values);
          }}
        />
        <p>
          <span className={`block font-mono text-xl ${tone}`} data-mark="deviation">
            {deviation === null ? '' : signed(deviation, 2)}
          </span>
          <span className="text-xs text-ink-2">
            {deviation === null ? 'mm, Enter keeps it' : 'mm from nominal'}
            {earlier.length > 0 && ` · before ${earlier.map((one) => fixed(one, 2)).join(' · ')}`}
          </span>
        </p>
      </div>
      <p id="reading-message" role="alert" className="mt-1 min-h-5 text-warn">
        {message}
      </p>
      <VernierScale
        dimension={dimension}
        earlier={earlier.map((one) => one - dimension.nominal_mm)}
        present={deviation}
      />
    </section>
  );
}

function placeWords({ axis, kind }: BenchDimension): string {
  const along = axis === 'none' ? 'across' : `along ${axis}`;
  return `${kind}, ${along}`;
}
