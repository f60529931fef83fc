import type { SetStateAction, RefObject, Dispatch } from 'react';
import type { BenchDimension } from '../../../contract/measure';
import { readNumber } from '../../lib/entry';
import { fixed, signed } from '../../lib/format';
import { VernierScale } from './VernierScale';
import { useReadingField, type ReadingFieldProps } from './use-reading-field';
const READING_FIELD = 'reading-field';

/** Puts the cursor into the field for the next reading. */
export const focusReading = (): void => document.getElementById(READING_FIELD)?.focus();

/**
 * The big field: a value, Enter, and on to the next. What is doubtful is asked about, once.
 * It begins anew, by its key, whenever another cell is at hand.
 */
export function ReadingField(props: ReadingFieldProps) {
  const { dimension, earlier, zero_mm, onKeep, onCommand, onCode, onPaste } = props;
  const { input, typed, setTyped, asked, message, setMessage, deviation, onKeyDown } =
    useReadingField({
      zero_mm,
      dimension,
      onCommand,
      onCode,
      earlier,
      onKeep,
    });

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
      <ReadingEntry
        input={input}
        dimension={dimension}
        message={message}
        typed={typed}
        setTyped={setTyped}
        onTyping={props.onTyping}
        asked={asked}
        setMessage={setMessage}
        onKeyDown={onKeyDown}
        onPaste={onPaste}
        tone={tone}
        deviation={deviation}
        earlier={earlier}
      />
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

interface ReadingEntryProps {
  input: RefObject<HTMLInputElement | null>;
  dimension: ReadingFieldProps['dimension'];
  message: string | null;
  typed: string;
  setTyped: Dispatch<SetStateAction<string>>;
  onTyping: () => void;
  asked: string | null;
  setMessage: Dispatch<SetStateAction<string | null>>;
  onKeyDown: (event: React.KeyboardEvent) => void;
  onPaste: ReadingFieldProps['onPaste'];
  tone: '' | 'text-small' | 'text-large';
  deviation: number | null;
  earlier: ReadingFieldProps['earlier'];
}

/** The field that the caliper types into, with the deviation beside it. */
function ReadingEntry({
  input,
  dimension,
  message,
  typed,
  setTyped,
  onTyping,
  asked,
  setMessage,
  onKeyDown,
  onPaste,
  tone,
  deviation,
  earlier,
}: ReadingEntryProps) {
  return (
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
          onTyping();
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
          {deviation === null ? 'mm, Enter saves it' : 'mm from nominal'}
          {earlier.length > 0 && ` · before ${earlier.map((one) => fixed(one, 2)).join(' · ')}`}
        </span>
      </p>
    </div>
  );
}

function placeWords({ axis, kind }: BenchDimension): string {
  const along = axis === 'none' ? 'across' : `along ${axis}`;
  return `${kind}, ${along}`;
}
