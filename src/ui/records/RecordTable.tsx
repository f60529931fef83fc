import { Fragment, useState, type SetStateAction, type Dispatch } from 'react';
import type { ContenderMark } from '../../core/model/study';
import { columnLabel, inWords } from '../../core/model/study/labels';
import { readAgain } from '../kit/leave';
import { callApi, failureText } from '../kit/request';
import { shortTime } from '../lib/format';
import { Badge } from '../marks/Badge';
import type { FieldSpec } from './fields';
import { NewRecord } from './NewRecord';
import { RecordForm } from './RecordForm';
import type { Value, Values } from './use-record';
import { UnknownCell } from '../marks/Unknown';
import { Leaving } from '../kit/Leaving';

export type TableRow = Values & { row_version: number };

interface RecordTableProps {
  title: string;
  /** What one row is called. */
  one: string;
  hint?: string;
  /** Address of the table under the API. */
  path: string;
  /** The columns that name a row, in the order of the address. */
  keyColumns: readonly string[];
  fields: readonly FieldSpec[];
  /** Fields that are asked for when a row is new. */
  newFields: readonly FieldSpec[];
  idColumn?: string;
  initial?: Values;
  rows: readonly TableRow[];
  /** Columns that the closed table shows. */
  shown: readonly string[];
  /** Words for the values of columns that name other rows. */
  words?: Readonly<Record<string, Readonly<Record<string, string>>>>;
  /** Badges of rows that are contenders, by id. */
  badges?: Readonly<Record<string, ContenderMark>>;
  /** Whether other tables of the page offer these rows, and the page must be read again. */
  feedsOthers?: boolean;
}

/** Rows of one kind: readable as a table, each opened to be edited, new ones added below. */
export function RecordTable(props: RecordTableProps) {
  const { title, one, hint, path, keyColumns, fields, newFields, idColumn, initial, shown, words } =
    props;
  /** What a row is called: what its first column shows. */
  const nameOf = (row: TableRow): string => {
    const [first = ''] = shown;
    const value = String(row[first]);
    const isTime = fields.find(({ name }) => name === first)?.kind === 'time';
    return words?.[first]?.[value] ?? (isTime ? shortTime(value) : value);
  };
  const [rows, setRows] = useState(props.rows);
  const [opened, setOpened] = useState<string | null>(null);
  const [isAdding, setAdding] = useState(false);
  const keyOf = (row: Values) =>
    keyColumns.map((column) => encodeURIComponent(String(row[column]))).join('/');
  const heads = shown.map((name) => fields.find((field) => field.name === name) ?? null);
  const changed = (key: string, saved: TableRow) =>
    setRows((known) => known.map((row) => (keyOf(row) === key ? { ...row, ...saved } : row)));
  return (
    <section className="min-w-0 sheet" aria-label={title}>
      <header className="flex flex-wrap items-center justify-between gap-2 border-b border-line px-3 py-2">
        <div>
          <h2 className="font-semibold">{title}</h2>
          {hint && <p className="text-xs text-ink-2">{hint}</p>}
        </div>
        <button type="button" className="action" onClick={() => setAdding(true)}>
          Add {one}
        </button>
      </header>
      {rows.length > 0 && (
        <Leaving>
          <table className="w-full">
            <RecordHeads heads={heads} shown={shown} />
            <tbody>
              {rows.map((row) => {
                const key = keyOf(row);
                const isOpen = key === opened;
                return (
                  <RecordLine
                    key={key}
                    rowKey={key}
                    isOpen={isOpen}
                    shown={shown}
                    row={row}
                    words={words}
                    badges={props.badges}
                    heads={heads}
                    nameOf={nameOf}
                    setOpened={setOpened}
                    path={path}
                    fields={fields}
                    one={one}
                    changed={changed}
                    setRows={setRows}
                    keyOf={keyOf}
                  />
                );
              })}
            </tbody>
          </table>
        </Leaving>
      )}
      {rows.length === 0 && !isAdding && <p className="px-3 py-2 text-ink-2">None yet.</p>}
      {isAdding && (
        <div className="border-t border-line bg-desk p-3">
          <NewRecord
            path={path}
            fields={newFields}
            {...(idColumn !== undefined && { idColumn })}
            {...(initial && { initial })}
            label={`New ${one}`}
            action={`Add ${one}`}
            onAdded={(row) => {
              if (props.feedsOthers) void readAgain();
              setRows((known) => [...known, row]);
              setAdding(false);
            }}
            onCancel={() => setAdding(false)}
          />
        </div>
      )}
    </section>
  );
}

interface RecordLineProps {
  rowKey: string;
  isOpen: boolean;
  shown: RecordTableProps['shown'];
  row: TableRow;
  words: Readonly<Record<string, Readonly<Record<string, string>>>> | undefined;
  badges: Readonly<Record<string, ContenderMark>> | undefined;
  heads: (FieldSpec | null)[];
  nameOf: (row: TableRow) => string;
  setOpened: Dispatch<SetStateAction<string | null>>;
  path: string;
  fields: RecordTableProps['fields'];
  one: string;
  changed: (key: string, saved: TableRow) => void;
  setRows: Dispatch<SetStateAction<readonly TableRow[]>>;
  keyOf: (row: Values) => string;
}

/** A row, and below it the form that changes it. */
function RecordLine({
  rowKey,
  isOpen,
  shown,
  row,
  words,
  badges,
  heads,
  nameOf,
  setOpened,
  path,
  fields,
  one,
  changed,
  setRows,
  keyOf,
}: RecordLineProps) {
  return (
    <Fragment>
      <tr className={`border-b border-line-soft ${isOpen ? 'bg-plum-soft' : ''}`}>
        {shown.map((name, at) => (
          <Shown
            key={name}
            value={row[name] ?? null}
            said={words?.[name]?.[String(row[name])]}
            badge={at === 0 ? badges?.[rowKey] : undefined}
            kind={heads[at]?.kind}
          />
        ))}
        <td className="w-16 px-2 text-right">
          <button
            type="button"
            className="text-xs text-plum underline"
            aria-expanded={isOpen}
            aria-label={`${isOpen ? 'Close' : 'Edit'} ${nameOf(row)}`}
            onClick={() => setOpened(isOpen ? null : rowKey)}
          >
            {isOpen ? 'close' : 'edit'}
          </button>
        </td>
      </tr>
      {isOpen && (
        <tr className="border-b border-line">
          <td colSpan={shown.length + 1} className="bg-desk p-3">
            <RecordForm
              path={`${path}/${rowKey}`}
              fields={fields}
              values={row}
              version={row.row_version}
              label={`${one} ${nameOf(row)}`}
              onSaved={(saved) => changed(rowKey, saved)}
            />
            <DeleteRow
              path={`${path}/${rowKey}`}
              one={one}
              onDeleted={() => setRows((known) => known.filter((r) => keyOf(r) !== rowKey))}
            />
          </td>
        </tr>
      )}
    </Fragment>
  );
}

interface RecordHeadsProps {
  heads: (FieldSpec | null)[];
  shown: RecordTableProps['shown'];
}

/** The names of the columns. */
function RecordHeads({ heads, shown }: RecordHeadsProps) {
  return (
    <thead>
      <tr className="border-b border-line">
        {heads.map((field, at) => (
          <th key={shown[at]} className={`th ${field?.kind === 'number' ? 'text-right' : ''}`}>
            {field?.label ?? columnLabel(shown[at] ?? '').label}
            {field?.unit && ` (${field.unit})`}
          </th>
        ))}
        <th className="th">
          <span className="sr-only">edit</span>
        </th>
      </tr>
    </thead>
  );
}

/** A value that names no other row, as people write it. */
const written = (value: Value, kind: FieldSpec['kind'] | undefined): Value =>
  kind === 'time' ? shortTime(String(value)) : kind === 'choice' ? inWords(String(value)) : value;

function Shown({
  value,
  said,
  badge,
  kind,
}: {
  value: Value;
  said: string | undefined;
  badge: ContenderMark | undefined;
  kind: FieldSpec['kind'] | undefined;
}) {
  if (value === null) {
    return <UnknownCell />;
  }
  return (
    <td className={`px-2 py-1 ${kind === 'number' ? 'text-right font-mono' : ''}`}>
      <span className="inline-flex items-center gap-2">
        {badge && <Badge mark={badge} />}
        {said ?? written(value, kind)}
      </span>
    </td>
  );
}

function DeleteRow({ path, one, onDeleted }: { path: string; one: string; onDeleted: () => void }) {
  const [message, setMessage] = useState<string | null>(null);
  const remove = async () => {
    try {
      // The version is read at the last moment: what is deleted is what stands there now.
      const { row_version } = await callApi<{ row_version: number }>('GET', path);
      const answer = await callApi<{ is_retired: true } | undefined>('DELETE', path, {
        version: row_version,
      });
      if (answer?.is_retired) setMessage('It has readings, so it was retired instead of deleted.');
      else onDeleted();
    } catch (error) {
      setMessage(failureText(error));
    }
  };
  return (
    <p className="mt-2 flex items-center gap-3 text-xs">
      <button type="button" className="action" onClick={() => void remove()}>
        Take this {one} out
      </button>
      {message && (
        <span role="alert" className="text-warn">
          {message}
        </span>
      )}
    </p>
  );
}
