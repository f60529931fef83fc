import { useState } from 'react';
import { v7 as uuid } from 'uuid';
import { ApiError, callApi, failureText } from '../kit/request';
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
  /** Whether the row is kept in this browser while the server is away. */
  isKept?: boolean;
  label: string;
  action: string;
  onAdded: (row: Values & { row_version: number }) => void;
  onCancel: () => void;
}

/** A form for a new row, sent as a whole. */
export function NewRecord(props: NewRecordProps) {
  const {
    path = '',
    send,
    fields,
    initial = {},
    idColumn,
    derive,
    label,
    action,
    onAdded,
    onCancel,
  } = props;
  const [values, setValues] = useState<Values>(() => ({
    ...(idColumn !== undefined && { [idColumn]: uuid() }),
    ...initial,
  }));
  const [issues, setIssues] = useState<Record<string, string>>({});
  const [message, setMessage] = useState<string | null>(null);
  const [faulty, setFaulty] = useState<ReadonlySet<string>>(new Set());
  const [isBusy, setBusy] = useState(false);
  const once = useOnce();
  /** Fills fields in that nobody types into: what stood there and could not be read is gone. */
  const fill = (more: Values) => {
    const changed = Object.keys(more).filter((name) => more[name] !== values[name]);
    setValues((known) => ({ ...known, ...more }));
    setFaulty((known) => new Set([...known].filter((name) => !changed.includes(name))));
  };

  const { offered = null } = props;
  const [seenOffer, setSeenOffer] = useState(offered);
  if (offered !== seenOffer) {
    setSeenOffer(offered);
    if (offered) fill(offered);
  }

  const submit = async () => {
    const missing = fields.filter((field) => field.required && values[field.name] == null);
    setIssues(Object.fromEntries(missing.map((field) => [field.name, 'must hold a value'])));
    if (missing.length > 0 || faulty.size > 0) return;
    setBusy(true);
    setMessage(null);
    try {
      onAdded(await (send ? send(values) : add(path, values, props.isKept === true)));
    } catch (error) {
      setMessage(failureText(error, 'It could not be added.'));
      if (error instanceof ApiError) {
        const found: Record<string, string> = {};
        for (const { path: at, message: why } of error.issues) {
          found[at.slice(at.lastIndexOf('.') + 1)] = why;
        }
        setIssues(found);
      }
    } finally {
      setBusy(false);
    }
  };
  return (
    <form
      aria-label={label}
      className="grid grid-cols-2 gap-x-3 gap-y-2 md:grid-cols-3"
      onSubmit={(event) => {
        event.preventDefault();
        once('submit', submit);
      }}
      onKeyDown={(event) => {
        if (event.key === 'Escape') onCancel();
      }}
    >
      {props.clock && (
        <Clock
          name={props.clock.name}
          what={props.clock.what}
          onStop={(seconds) => {
            const { field = '', toValue } = props.clock ?? {};
            fill({ [field]: toValue?.(seconds) ?? null });
          }}
        />
      )}
      {fields.map((field, at) => (
        <div key={field.name} className={field.kind === 'long' ? 'col-span-full' : ''}>
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
      ))}
      {message && (
        <p role="alert" className="col-span-full text-warn">
          {message}
        </p>
      )}
      <p className="col-span-full flex gap-2">
        <button className="action action-main" disabled={isBusy}>
          {action}
        </button>
        <button type="button" className="action" onClick={onCancel}>
          Cancel
        </button>
      </p>
    </form>
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
