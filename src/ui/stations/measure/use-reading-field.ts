import {
  useEffect,
  useEffectEvent,
  useRef,
  useState,
  type SetStateAction,
  type RefObject,
  type Dispatch,
} from 'react';
import type { BenchDimension } from '../../../contract/measure';
import { readNumber } from '../../lib/entry';
import { fixed } from '../../lib/format';
import { doubtReading } from '../../../core/measures/metrology/doubt';
import { ALONE_MS } from '../../lib/not-scanned';

interface ReadingFieldGiven {
  zero_mm: number;
  dimension: ReadingFieldProps['dimension'];
  onCommand: ReadingFieldProps['onCommand'];
  onCode: ReadingFieldProps['onCode'];
  earlier: ReadingFieldProps['earlier'];
  onKeep: ReadingFieldProps['onKeep'];
}

/** What is typed into the field, and what each key does with it. */
export function useReadingField({
  zero_mm,
  dimension,
  onCommand,
  onCode,
  earlier,
  onKeep,
}: ReadingFieldGiven) {
  const input = useRef<HTMLInputElement>(null);
  const [typed, setTyped] = useState('');
  const [asked, setAsked] = useState<string | null>(null);
  const [message, setMessage] = useState<string | null>(null);
  /** A letter that is a command unless another key follows at once. */
  const alone = useRef<{ at: number; timer: ReturnType<typeof setTimeout> } | null>(null);
  const fading = useRef<ReturnType<typeof setTimeout>>(undefined);
  const stopTimers = useEffectEvent(() => {
    clearTimeout(alone.current?.timer);
    clearTimeout(fading.current);
  });
  useEffect(() => {
    input.current?.focus();
    return () => stopTimers();
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
          `${doubt.far_mm < 0 ? 'below' : 'above'} ${from}. Is it right? Press Enter again to save it.`,
      );
      return;
    }
    setTyped('');
    setAsked(null);
    setMessage(null);
    onKeep(value);
  };

  const onKeyDown = useFieldKeys({
    alone,
    typed,
    setTyped,
    onCommand,
    submit,
    setAsked,
    setMessage,
  });
  return { input, typed, setTyped, asked, message, setMessage, deviation, onKeyDown };
}

interface FieldKeysGiven {
  alone: RefObject<{ at: number; timer: ReturnType<typeof setTimeout> } | null>;
  typed: string;
  setTyped: Dispatch<SetStateAction<string>>;
  onCommand: ReadingFieldGiven['onCommand'];
  submit: () => void;
  setAsked: Dispatch<SetStateAction<string | null>>;
  setMessage: Dispatch<SetStateAction<string | null>>;
}

/** What each key does in the field. */
function useFieldKeys({
  alone,
  typed,
  setTyped,
  onCommand,
  submit,
  setAsked,
  setMessage,
}: FieldKeysGiven) {
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
  return onKeyDown;
}

/** How long the message about an unknown sticker stays. */
const UNKNOWN_STICKER_MS = 6000;

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

export interface ReadingFieldProps {
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
