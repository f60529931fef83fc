import { useCallback, useEffect, useRef, useState } from 'react';
import { ApiError, callApi, failureText, UnreachableError } from '../kit/request';

export type Value = string | number | null;
export type Values = Record<string, Value>;

/** Where the saving of a record stands. */
export type SaveState =
  | { kind: 'idle' }
  | { kind: 'saving' }
  | { kind: 'saved'; at: Date }
  | { kind: 'waiting' }
  | { kind: 'refused'; message: string };

/** A field that somebody else has changed meanwhile, to another value. */
export interface FieldConflict {
  field: string;
  own: Value;
  theirs: Value;
}

export interface RecordHandle {
  values: Values;
  state: SaveState;
  issues: Readonly<Record<string, string>>;
  conflict: FieldConflict | null;
  /** What somebody else changed meanwhile, and is now shown. */
  changedByOthers: readonly string[];
  commit: (field: string, value: Value) => void;
  resolve: (keep: 'own' | 'theirs') => void;
}

const RETRY_MS = 2500;

interface Saved {
  values: Values;
  version: number;
}

/**
 * How a record's change is sent: the change for the API from a field's value and the record as it
 * was saved last, and back.
 */
export interface RecordSource {
  path: string;
  toChange?: (field: string, value: Value, saved: Values) => Record<string, unknown>;
  fromAnswer?: (answer: Record<string, unknown>) => Values;
  /** Told of the record as it stands, whenever a change has been taken. */
  onSaved?: (row: Values & { row_version: number }) => void;
}

const plainChange = (field: string, value: Value): Record<string, unknown> => ({ [field]: value });
const plainValues = (answer: Record<string, unknown>): Values => answer as Values;

/** Whether the record has left the page: nothing is sent again then. */
function useGone() {
  const isGone = useRef(false);
  useEffect(() => {
    isGone.current = false;
    return () => {
      isGone.current = true;
    };
  }, []);
  return isGone;
}

const changedFields = (before: Values, now: Values): string[] =>
  Object.keys(now).filter((name) => now[name] !== before[name]);

/** What the server says of a field that it refused. */
const issueOf = (error: unknown, field: string): string | undefined =>
  error instanceof ApiError
    ? error.issues.find((issue) => issue.path.endsWith(field))?.message
    : undefined;

/**
 * Keeps a record saved field by field. A change made from an older version is laid over the newer
 * one where the fields differ; where both changed the same field, a person decides.
 */
export function useRecord(source: RecordSource, initial: Values, version: number): RecordHandle {
  const { path, toChange = plainChange, fromAnswer = plainValues, onSaved } = source;
  const saved = useRef<Saved>({ values: initial, version });
  const queue = useRef<Promise<void>>(Promise.resolve());
  const [values, setValues] = useState(initial);
  const [state, setState] = useState<SaveState>({ kind: 'idle' });
  const [issues, setIssues] = useState<Record<string, string>>({});
  const [conflict, setConflict] = useState<FieldConflict | null>(null);
  const [changedByOthers, setChangedByOthers] = useState<readonly string[]>([]);
  const isGone = useGone();

  const accept = useCallback(
    (answer: Record<string, unknown>) => {
      const { row_version, ...rest } = answer;
      saved.current = { values: fromAnswer(rest), version: Number(row_version) };
    },
    [fromAnswer],
  );

  const send = useCallback(
    async (field: string, value: Value): Promise<void> => {
      if (saved.current.values[field] === value) return;
      setState({ kind: 'saving' });
      try {
        const answer = await callApi<Record<string, unknown>>('PATCH', path, {
          version: saved.current.version,
          change: toChange(field, value, saved.current.values),
        });
        accept(answer);
        onSaved?.({ ...saved.current.values, row_version: saved.current.version });
        setState({ kind: 'saved', at: new Date() });
        setIssues(({ [field]: _, ...others }) => others);
      } catch (error) {
        if (error instanceof UnreachableError) {
          setState({ kind: 'waiting' });
          await new Promise((resolve) => setTimeout(resolve, RETRY_MS));
          if (!isGone.current) await send(field, value);
          return;
        }
        if (error instanceof ApiError && error.status === 409 && error.current) {
          const before = saved.current.values;
          accept(error.current as Record<string, unknown>);
          const now = saved.current.values;
          const others = changedFields(before, now);
          setChangedByOthers(others.filter((name) => name !== field));
          setValues((shown) => ({ ...shown, ...pickFields(now, others), [field]: value }));
          if (others.includes(field) && now[field] !== value) {
            setState({ kind: 'idle' });
            setConflict({ field, own: value, theirs: now[field] ?? null });
            return;
          }
          await send(field, value);
          return;
        }
        const message = failureText(error, 'It could not be saved.');
        const said = issueOf(error, field) ?? message;
        setIssues((known) => ({ ...known, [field]: said }));
        setState({ kind: 'refused', message });
      }
    },
    [accept, isGone, onSaved, path, toChange],
  );

  const enqueue = useCallback(
    (field: string, value: Value) => {
      queue.current = queue.current.then(() => send(field, value));
    },
    [send],
  );

  const commit = useCallback(
    (field: string, value: Value) => {
      setValues((shown) => ({ ...shown, [field]: value }));
      enqueue(field, value);
    },
    [enqueue],
  );

  const resolve = useCallback(
    (keep: 'own' | 'theirs') => {
      if (!conflict) return;
      setConflict(null);
      if (keep === 'own') commit(conflict.field, conflict.own);
      else setValues((shown) => ({ ...shown, [conflict.field]: conflict.theirs }));
    },
    [commit, conflict],
  );

  return { values, state, issues, conflict, changedByOthers, commit, resolve };
}

const pickFields = (values: Values, names: readonly string[]): Values =>
  Object.fromEntries(names.map((name) => [name, values[name] ?? null]));
