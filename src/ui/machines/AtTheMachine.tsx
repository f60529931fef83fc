import { nearest } from '../kit/event-target';
import { useEffect, useEffectEvent, useState } from 'react';
import { inWords } from '../../core/model/study/labels';
import { callApi, failureText } from '../kit/request';
import { localIso } from '../lib/entry';
import { duration, shortTime } from '../lib/format';
import type { FieldSpec } from '../records/fields';
import { NewRecord } from '../records/NewRecord';
import type { Value, Values } from '../records/use-record';

/** One kind of thing that is written down at a machine. */
export interface BookPage {
  table: string;
  title: string;
  /** What one entry is called. */
  one: string;
  fields: readonly FieldSpec[];
  /** The column that is given an id; none where rows are named otherwise. */
  idColumn?: string;
  /** Whether its rows are numbered from 1. */
  isNumbered?: boolean;
  /** The columns that name a row; none where rows may repeat. */
  keyColumns: readonly string[];
  /** The field that a clock fills in. */
  clock?: { field: string; what: string; unit: 'min' | 's' };
  rows: readonly Values[];
}

interface AtTheMachineProps {
  studyId: string;
  machineId: string;
  pages: readonly BookPage[];
  /** Whether who asks may take entries out. */
  mayTakeOut: boolean;
}

/** Everything that is written down at the machine, in the order in which it happens, by key. */
export function AtTheMachine({ studyId, machineId, pages, mayTakeOut }: AtTheMachineProps) {
  const [opened, setOpened] = useState<string | null>(null);
  const onDigit = useEffectEvent((event: KeyboardEvent) => {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    if (nearest(event, 'input, select, textarea, dialog')) return;
    const page = pages[Number(event.key) - 1];
    if (!/^[1-9]$/.test(event.key) || !page) return;
    event.preventDefault();
    setOpened((now) => (now === page.table ? null : page.table));
  });
  useEffect(() => {
    const listen = (event: KeyboardEvent) => onDigit(event);
    document.addEventListener('keydown', listen);
    document.documentElement.dataset.book = 'ready';
    return () => document.removeEventListener('keydown', listen);
  }, []);
  return (
    <section className="min-w-0 sheet" aria-labelledby="at-the-machine">
      <h2 id="at-the-machine" className="border-b border-line px-3 py-2 font-semibold">
        At the machine{' '}
        <span className="text-xs font-normal text-ink-2">
          in the order in which it is unpacked and tried
        </span>
      </h2>
      {pages.map((page, at) => (
        <Page
          key={page.table}
          studyId={studyId}
          machineId={machineId}
          page={page}
          mayTakeOut={mayTakeOut}
          digit={at < 9 ? String(at + 1) : null}
          isOpen={opened === page.table}
          onToggle={() => setOpened((now) => (now === page.table ? null : page.table))}
        />
      ))}
    </section>
  );
}

interface PageProps {
  studyId: string;
  machineId: string;
  page: BookPage;
  mayTakeOut: boolean;
  digit: string | null;
  isOpen: boolean;
  onToggle: () => void;
}

function Page({ studyId, machineId, page, mayTakeOut, digit, isOpen, onToggle }: PageProps) {
  const [rows, setRows] = useState(page.rows);
  const [turn, setTurn] = useState(0);
  const [message, setMessage] = useState<string | null>(null);
  const { table, title, one, fields, keyColumns, idColumn, isNumbered, clock } = page;
  const path = `/studies/${studyId}/rows/${table}`;
  // A numbered entry is known by when it was begun, should it be sent twice.
  const [begun, setBegun] = useState(() => localIso(new Date()));
  const next = 1 + Math.max(0, ...rows.map((row) => Number(row.step) || 0));
  const takeOut = async (row: Values) => {
    setMessage(null);
    try {
      if (keyColumns.length > 0) {
        const key = keyColumns.map((column) => encodeURIComponent(String(row[column]))).join('/');
        await callApi('DELETE', `${path}/${key}`, { version: Number(row.row_version ?? 1) });
      } else {
        const { row_version: _, ...said } = row;
        await callApi('DELETE', path, said);
      }
      setRows((all) => all.filter((each) => each !== row));
    } catch (error) {
      setMessage(failureText(error));
    }
  };
  return (
    <div className="border-b border-line-soft last:border-b-0">
      <PageHead isOpen={isOpen} onToggle={onToggle} digit={digit} title={title} rows={rows} />
      {isOpen && (
        <div className="px-3 pb-3">
          <NewRecord
            key={turn}
            path={path}
            label={`New ${one}`}
            action={`Add ${one}`}
            fields={fields}
            {...(idColumn !== undefined && { idColumn })}
            initial={{ machine_id: machineId, ...(isNumbered && { step: next, at: begun }) }}
            {...(clock && {
              clock: {
                name: `${table} ${studyId} ${machineId}`,
                what: clock.what,
                field: clock.field,
                toValue: (seconds: number) =>
                  clock.unit === 'min' ? Number((seconds / 60).toFixed(2)) : Math.round(seconds),
              },
            })}
            isKept
            isSeries
            onAdded={(row, isNext) => {
              setRows((all) => [...all, row]);
              if (!isNext) setTurn((count) => count + 1);
              setBegun(localIso(new Date()));
            }}
            onCancel={onToggle}
          />
          {message && (
            <p role="alert" className="mt-1 text-warn">
              {message}
            </p>
          )}
          <Noted rows={rows} fields={fields} mayTakeOut={mayTakeOut} takeOut={takeOut} />
        </div>
      )}
    </div>
  );
}

interface NotedProps {
  rows: readonly Values[];
  fields: readonly FieldSpec[];
  mayTakeOut: boolean;
  takeOut: (row: Values) => Promise<void>;
}

/** What has been noted, the latest last. */
function Noted({ rows, fields, mayTakeOut, takeOut }: NotedProps) {
  return (
    <ol className="mt-2">
      {rows.map((row, at) => (
        <li key={at} className="flex items-start gap-2 border-t border-line-soft py-1">
          <span className="min-w-0 flex-1">{say(fields, row)}</span>
          {mayTakeOut && (
            <button
              type="button"
              className="min-h-[24px] border-0 bg-transparent px-1 text-2xs text-ink-2 underline"
              aria-label={`Remove: ${say(fields, row)}`}
              onClick={() => void takeOut(row)}
            >
              Remove
            </button>
          )}
        </li>
      ))}
    </ol>
  );
}

interface PageHeadProps {
  isOpen: boolean;
  onToggle: () => void;
  digit: PageProps['digit'];
  title: string;
  rows: readonly Values[];
}

/** The name of a page: opens and closes it. */
function PageHead({ isOpen, onToggle, digit, title, rows }: PageHeadProps) {
  return (
    <h3>
      <button
        type="button"
        aria-expanded={isOpen}
        className="flex min-h-[36px] w-full items-center gap-2 border-0 bg-transparent px-3 py-1 text-left"
        onClick={onToggle}
        {...(digit !== null && {
          'data-keys': digit,
          'data-does': `write down: ${title.toLowerCase()}`,
        })}
      >
        {digit !== null && <kbd className="key">{digit}</kbd>}
        <span className="min-w-0 flex-1 font-medium">{title}</span>
        <span className="text-xs text-ink-2">
          {rows.length === 0 ? 'nothing yet' : rows.length}
        </span>
      </button>
    </h3>
  );
}

/** What an entry says, in one line. */
const say = (fields: readonly FieldSpec[], row: Values): string =>
  fields
    .flatMap((field) => {
      const value: Value = row[field.name] ?? null;
      if (value === null) return [];
      if (field.kind === 'choice') return [inWords(String(value))];
      if (field.kind === 'duration') return [`${field.label} ${duration(Number(value))}`];
      if (field.kind === 'time') return [shortTime(String(value))];
      if (field.kind === 'number') {
        return [`${field.label} ${value}${field.unit === null ? '' : ` ${field.unit}`}`];
      }
      return [String(value)];
    })
    .join(' · ');
