import { useEffect, useRef, useState, type SetStateAction, type Dispatch } from 'react';
import { v7 as uuid } from 'uuid';
import { ApiError, callApi, failureText, underWayUntil } from '../kit/request';
import { useOnce } from '../kit/use-once';
import { sendOrKeep } from '../lib/outbox';
import { Clock } from './Clock';
import type { FieldSpec } from './fields';
import { FieldInput } from './FieldInput';
import type { Value, Values } from './use-record';

interface NewRecordProps {
  /** Address of the table under the API. */
  path?: string;
  /** How the row is sent, where it is not by a POST of the row to `path`. */
  send?: (values: Values) => Promise<Values & { row_version: number }>;
  fields: readonly FieldSpec[];
  /** Values that are not asked for, or stand there at first. */
  initial?: Values;
  /** Values that are laid into the form while it is filled in: others that are typed stay. */
  offered?: Values | null;
  /** The column that is given an id where it is not asked for. */
  idColumn?: string;
  /** What follows from a value that was entered, for other fields; `values` are all of them with the new one. */
  derive?: (name: string, value: Value, values: Values) => Values;
  /** A clock that fills a field in when it is stopped. */
  clock?: { name: string; what: string; field: string; toValue: (seconds: number) => number };
  /** Whether one row after another is added: what is typed while a row is on its way is the next one. */
  isSeries?: boolean;
  /** Whether the row is kept in this browser while the server is away. */
  isKept?: boolean;
  label: string;
  action: string;
  /** `isNext`: the form holds the next row already, and stays. */
  onAdded: (row: Values & { row_version: number }, isNext: boolean) => void;
  onCancel: () => void;
}

/** What stands in the fields, which of them could not be read, and what is offered for them. */
function useValues({ idColumn, initial, offered = null }: NewRecordProps) {
  const [values, setValues] = useState<Values>(() => ({
    ...(idColumn !== undefined && { [idColumn]: uuid() }),
    ...initial,
  }));
  const [faulty, setFaulty] = useState<ReadonlySet<string>>(new Set());
  /** Fills fields in that nobody types into: what stood there and could not be read is gone. */
  const fill = (more: Values) => {
    const changed = Object.keys(more).filter((name) => more[name] !== values[name]);
    setValues((known) => ({ ...known, ...more }));
    setFaulty((known) => new Set([...known].filter((name) => !changed.includes(name))));
  };
  const [seenOffer, setSeenOffer] = useState(offered);
  if (offered !== seenOffer) {
    setSeenOffer(offered);
    if (offered) fill(offered);
  }
  return { values, setValues, faulty, setFaulty, fill };
}

/** A form for a new row, sent as a whole. */
export function NewRecord(props: NewRecordProps) {
  const { path = '', send, fields, initial = {}, idColumn, onAdded } = props;
  const { values, setValues, faulty, setFaulty, fill } = useValues(props);
  const [issues, setIssues] = useState<Record<string, string>>({});
  const [message, setMessage] = useState<string | null>(null);
  const [isBusy, setBusy] = useState(false);
  const once = useOnce();
  /** What is on its way, as it was typed. */
  const sent = useRef<Values | null>(null);
  /** Lets a link go that waits for the next row; null where nobody has asked for the next one yet. */
  const waiting = useRef<(() => void) | null>(null);
  const hasChanged = (): boolean =>
    fields.some(({ name }) => (values[name] ?? null) !== (sent.current?.[name] ?? null));
  const latest = useRef(hasChanged);
  useEffect(() => {
    latest.current = hasChanged;
  });
  const submit = async () => {
    const missing = fields.filter((field) => field.required && values[field.name] == null);
    setIssues(Object.fromEntries(missing.map((field) => [field.name, 'must hold a value'])));
    if (missing.length > 0 || faulty.size > 0) return;
    setBusy(true);
    setMessage(null);
    sent.current = values;
    // What is not asked for may be another for each row: its number, its time.
    const asked = new Set(fields.map((field) => field.name));
    const given = Object.entries(initial).filter(([name]) => !asked.has(name));
    const row = props.isSeries ? { ...values, ...Object.fromEntries(given) } : values;
    try {
      const added = await (send ? send(row) : add(path, row, props.isKept === true));
      const isNext = props.isSeries === true && latest.current();
      if (isNext && idColumn !== undefined)
        setValues((known) => ({ ...known, [idColumn]: uuid() }));
      onAdded(added, isNext);
    } catch (error) {
      const isOther = props.isSeries === true && latest.current();
      const what = isOther
        ? `${fields.flatMap(({ name }) => row[name] ?? []).join(', ')} was not added: `
        : '';
      setMessage(what + failureText(error, 'It could not be added.'));
      // The next one waits until somebody has read why.
      if (isOther) letGo();
      if (error instanceof ApiError) {
        setIssues(issuesByField(error));
      }
    } finally {
      setBusy(false);
    }
  };
  const letGo = () => {
    waiting.current?.();
    waiting.current = null;
  };
  /** Takes the next row in turn, where another is on its way. */
  const take = () => {
    if (!isBusy) return once('submit', submit);
    if (!props.isSeries || waiting.current || !hasChanged()) return;
    void underWayUntil(() => new Promise<void>((end) => (waiting.current = end)));
  };
  useEffect(() => {
    if (isBusy || !waiting.current) return;
    const go = waiting.current;
    waiting.current = null;
    void submit().finally(go);
  });
  useEffect(() => () => waiting.current?.(), []);
  return (
    <RecordFields
      label={props.label}
      take={take}
      onCancel={props.onCancel}
      clock={props.clock}
      fill={fill}
      fields={fields}
      values={values}
      issues={issues}
      setFaulty={setFaulty}
      setValues={setValues}
      derive={props.derive}
      message={message}
      isBusy={isBusy}
      isSeries={props.isSeries}
      action={props.action}
    />
  );
}

/** What the server says of each field, by the last part of its path. */
const issuesByField = (error: ApiError): Record<string, string> =>
  Object.fromEntries(
    error.issues.map(({ path, message }) => [path.slice(path.lastIndexOf('.') + 1), message]),
  );

interface RecordFieldsProps {
  label: string;
  take: () => void;
  onCancel: () => void;
  clock:
    { name: string; what: string; field: string; toValue: (seconds: number) => number } | undefined;
  fill: (more: Values) => void;
  fields: NewRecordProps['fields'];
  values: Values;
  issues: Record<string, string>;
  setFaulty: Dispatch<SetStateAction<ReadonlySet<string>>>;
  setValues: Dispatch<SetStateAction<Values>>;
  derive: ((name: string, value: Value, values: Values) => Values) | undefined;
  message: string | null;
  isBusy: boolean;
  isSeries: boolean | undefined;
  action: string;
}

/** The form itself. */
function RecordFields({
  label,
  take,
  onCancel,
  clock,
  fill,
  fields,
  values,
  issues,
  setFaulty,
  setValues,
  derive,
  message,
  isBusy,
  isSeries,
  action,
}: RecordFieldsProps) {
  return (
    <form
      aria-label={label}
      className="grid grid-cols-2 gap-x-3 gap-y-2 md:grid-cols-3"
      onSubmit={(event) => {
        event.preventDefault();
        take();
      }}
      onKeyDown={(event) => {
        if (event.key === 'Escape') onCancel();
      }}
    >
      {clock && (
        <Clock
          name={clock.name}
          what={clock.what}
          onStop={(seconds) => {
            const { field = '', toValue } = clock ?? {};
            fill({ [field]: toValue?.(seconds) ?? null });
          }}
        />
      )}
      {fields.map((field, at) => (
        <NewField
          key={field.name}
          field={field}
          values={values}
          issues={issues}
          at={at}
          setFaulty={setFaulty}
          setValues={setValues}
          derive={derive}
          fill={fill}
        />
      ))}
      {message && (
        <p role="alert" className="col-span-full text-warn">
          {message}
        </p>
      )}
      <p className="col-span-full flex gap-2">
        <button className="action action-main" disabled={isBusy && !isSeries}>
          {action}
        </button>
        <button type="button" className="action" onClick={onCancel}>
          Cancel
        </button>
      </p>
    </form>
  );
}

interface NewFieldProps {
  field: FieldSpec;
  values: Values;
  issues: Record<string, string>;
  at: number;
  setFaulty: Dispatch<SetStateAction<ReadonlySet<string>>>;
  setValues: Dispatch<SetStateAction<Values>>;
  derive: ((name: string, value: Value, values: Values) => Values) | undefined;
  fill: (more: Values) => void;
}

/** One field of the form. */
function NewField({
  field,
  values,
  issues,
  at,
  setFaulty,
  setValues,
  derive,
  fill,
}: NewFieldProps) {
  return (
    <div className={field.kind === 'long' ? 'col-span-full' : ''}>
      <FieldInput
        field={field}
        value={values[field.name] ?? null}
        issue={issues[field.name]}
        autoFocus={at === 0}
        isEager
        onFault={(isFaulty) =>
          setFaulty((known) => {
            const next = new Set(known);
            if (isFaulty) next.add(field.name);
            else next.delete(field.name);
            return next;
          })
        }
        onCommit={(value: Value) => {
          setValues((known) => ({ ...known, [field.name]: value }));
          const more = derive?.(field.name, value, { ...values, [field.name]: value });
          if (more) fill(more);
        }}
      />
    </div>
  );
}

async function add(
  path: string,
  values: Values,
  isKept: boolean,
): Promise<Values & { row_version: number }> {
  if (!isKept) return callApi('POST', path, values);
  const kept = await sendOrKeep<Values & { row_version: number }>(path, values);
  return kept ?? { ...values, row_version: 1 };
}
