import * as z from 'zod';
import { keysOf } from '../../../core/model/study';
import { chosenOf } from '../../kit/chosen';
import { useState, type SetStateAction, type Dispatch } from 'react';
import { v7 as uuid } from 'uuid';
import {
  FOREIGN_UNITS,
  guessRole,
  readForeign,
  type ColumnRole,
  type ForeignContext,
  type ForeignReading,
  type ForeignFault,
  type ForeignTable,
  type ForeignUnit,
} from '../../../core/model/table-import';
import { callApi, failureText } from '../../kit/request';
import { localIso } from '../../lib/entry';
import { counted, fixed } from '../../lib/format';
import { useRemembered } from '../../lib/remembered';
import { tableOfFile, tableOfText } from './read-table';
import { Leaving } from '../../kit/Leaving';

interface ReadingsImportProps extends ForeignContext {
  studyId: string;
}

const REMEMBERED = 'vergleich.mapping';
const SHOWN_ROWS = 8;
const SHOWN_FAULTS = 12;
const MOST_READINGS = 3000;

const ROLES = [
  ['nothing', 'leave out'],
  ['specimen', 'specimen'],
  ['dimension', 'name of the dimension'],
  ['value', 'value'],
  ['operator', 'operator'],
  ['instrument', 'instrument'],
] as const;

const written = (role: ColumnRole): string =>
  role.is === 'values' ? `values:${role.dimension}` : role.is;

const readRole = (text: string): ColumnRole =>
  text.startsWith('values:')
    ? { is: 'values', dimension: text.slice('values:'.length) }
    : { is: text as Exclude<ColumnRole['is'], 'values'> };

const rolesSchema = z.record(z.string(), z.string());

/** What was chosen for heads before, in this browser. */
function rememberedRoles(text: string): Record<string, string> {
  try {
    return rolesSchema.parse(JSON.parse(text || '{}'));
  } catch {
    return {};
  }
}

/** Readings from somebody's spreadsheet: say what each column is, see what comes of it, keep all or none. */
export function ReadingsImport(props: ReadingsImportProps) {
  const { studyId, dimensions, specimens, instruments } = props;
  const context: ForeignContext = { dimensions, specimens, instruments };
  const {
    table,
    roles,
    unit,
    setUnit,
    instrument,
    setInstrument,
    message,
    kept,
    isBusy,
    guarded,
    choose,
    outcome,
    isTooMany,
    keep,
  } = useForeignTable(context, studyId);
  const names = [...new Map(dimensions.map(({ id, name }) => [id, name]))];
  return (
    <div className="grid gap-3">
      <TableSource guarded={guarded} message={message} kept={kept} studyId={studyId} />
      {table && outcome && (
        <section className="min-w-0 sheet" aria-label="Mapping">
          <Leaving>
            <ForeignRows
              table={table}
              roles={roles}
              choose={choose}
              names={names}
              outcome={outcome}
            />
          </Leaving>
          {table.rows.length > SHOWN_ROWS && (
            <p className="px-2 py-1 text-xs text-ink-2">
              and {counted(table.rows.length - SHOWN_ROWS, 'row')} more
            </p>
          )}
          <ImportKeys
            unit={unit}
            setUnit={setUnit}
            instrument={instrument}
            setInstrument={setInstrument}
            instruments={instruments}
            outcome={outcome}
            isTooMany={isTooMany}
            isBusy={isBusy}
            keep={keep}
          />
        </section>
      )}
    </div>
  );
}

/** A table from elsewhere: what its columns mean, what can be read of it, and keeping that. */
function useForeignTable(context: ForeignContext, studyId: string) {
  const [table, setTable] = useState<ForeignTable | null>(null);
  const [roles, setRoles] = useState<ColumnRole[]>([]);
  const [unit, setUnit] = useState<ForeignUnit>('mm');
  const [instrument, setInstrument] = useState('');
  const [memory, remember] = useRemembered(REMEMBERED);
  const [message, setMessage] = useState<string | null>(null);
  const [kept, setKept] = useState<number | null>(null);
  const [isBusy, setBusy] = useState(false);

  const take = (found: ForeignTable) => {
    const known = rememberedRoles(memory);
    setTable(found);
    setKept(null);
    setMessage(null);
    setRoles(
      found.heads.map((head) => {
        const before = known[head.trim().toLowerCase()];
        return before === undefined ? guessRole(head, context) : readRole(before);
      }),
    );
  };
  const guarded = (work: () => ForeignTable | Promise<ForeignTable>) => {
    void Promise.resolve()
      .then(work)
      .then(take)
      .catch((error: unknown) => {
        setTable(null);
        setMessage(failureText(error, 'This is no table.'));
      });
  };
  const choose = (column: number, text: string) => {
    const role = readRole(text);
    setRoles((all) => all.map((one, at) => (at === column ? role : one)));
    const head = table?.heads[column]?.trim().toLowerCase();
    if (head) remember(JSON.stringify({ ...rememberedRoles(memory), [head]: text }));
  };
  const outcome = table && readForeign(table, roles, unit, context);
  const isTooMany = (outcome?.readings.length ?? 0) > MOST_READINGS;
  const keep = async () => {
    if (!outcome) return;
    setBusy(true);
    setMessage(null);
    const at = localIso(new Date());
    const readings = outcome.readings.map(({ row: _, instrument_id, ...reading }) => ({
      ...reading,
      instrument_id: instrument_id ?? (instrument || null),
      reading_id: uuid(),
      trial: 1,
      at,
    }));
    try {
      const path = `/studies/${studyId}/readings/batch`;
      setKept((await callApi<{ kept: number }>('POST', path, { readings })).kept);
      setTable(null);
    } catch (error) {
      setMessage(failureText(error, 'They could not be saved.'));
    }
    setBusy(false);
  };
  return {
    table,
    roles,
    unit,
    setUnit,
    instrument,
    setInstrument,
    message,
    kept,
    isBusy,
    guarded,
    choose,
    outcome,
    isTooMany,
    keep,
  };
}

interface ImportKeysProps {
  unit: 'mm' | 'cm' | 'inch' | 'µm';
  setUnit: Dispatch<SetStateAction<'mm' | 'cm' | 'inch' | 'µm'>>;
  instrument: string;
  setInstrument: Dispatch<SetStateAction<string>>;
  instruments: ReadingsImportProps['instruments'];
  outcome: { readings: ForeignReading[]; faults: ForeignFault[] };
  isTooMany: boolean;
  isBusy: boolean;
  keep: () => Promise<void>;
}

/** Unit, instrument, and what will be taken or not. */
function ImportKeys({
  unit,
  setUnit,
  instrument,
  setInstrument,
  instruments,
  outcome,
  isTooMany,
  isBusy,
  keep,
}: ImportKeysProps) {
  return (
    <div className="grid gap-2 border-t border-line p-3">
      <div className="flex flex-wrap items-end gap-3">
        <label className="text-xs text-ink-2">
          lengths are in
          <select
            className="field"
            value={unit}
            onChange={(event) => setUnit(chosenOf(event, keysOf(FOREIGN_UNITS)))}
          >
            {Object.keys(FOREIGN_UNITS).map((one) => (
              <option key={one}>{one}</option>
            ))}
          </select>
        </label>
        <label className="text-xs text-ink-2">
          instrument, where the table names none
          <select
            className="field"
            value={instrument}
            onChange={(event) => setInstrument(event.target.value)}
          >
            <option value="">not named</option>
            {instruments.map((one) => (
              <option key={one.id} value={one.id}>
                {one.name}
              </option>
            ))}
          </select>
        </label>
      </div>
      {outcome.readings[0] && (
        <p className="text-xs text-ink-2" data-mark="outcome">
          {counted(outcome.readings.length, 'reading')} of{' '}
          {counted(new Set(outcome.readings.map((one) => one.specimen_id)).size, 'specimen')}; the
          first is {fixed(outcome.readings[0].value_mm, 3)} mm.
        </p>
      )}
      {outcome.faults.length > 0 && (
        <ul className="text-xs text-warn" aria-label="Faults">
          {outcome.faults.slice(0, SHOWN_FAULTS).map((fault, at) => (
            <li key={at}>
              {fault.row > 0 && `row ${fault.row}, ${fault.column}: `}
              {fault.message}
            </li>
          ))}
          {outcome.faults.length > SHOWN_FAULTS && (
            <li>and {outcome.faults.length - SHOWN_FAULTS} more</li>
          )}
        </ul>
      )}
      {isTooMany && (
        <p role="alert" className="text-warn">
          More than {MOST_READINGS} readings: cut the table into parts.
        </p>
      )}
      <div>
        <button
          type="button"
          className="action action-main"
          disabled={
            isBusy || isTooMany || outcome.readings.length === 0 || outcome.faults.length > 0
          }
          onClick={() => void keep()}
        >
          Keep {counted(outcome.readings.length, 'reading')}
        </button>
        {outcome.faults.length > 0 && outcome.readings.length > 0 && (
          <span className="ml-2 text-xs text-ink-2">
            correct the cells or leave their column out: either all rows are saved or none
          </span>
        )}
      </div>
    </div>
  );
}

interface ForeignRowsProps {
  table: ForeignTable;
  roles: ColumnRole[];
  choose: (column: number, text: string) => void;
  names: [string, string][];
  outcome: { readings: ForeignReading[]; faults: ForeignFault[] };
}

/** The table as it came, with what each column means. */
function ForeignRows({ table, roles, choose, names, outcome }: ForeignRowsProps) {
  return (
    <table className="text-xs">
      <thead>
        <tr>
          {table.heads.map((head, column) => (
            <th key={column} className="th align-bottom">
              <span className="block max-w-40 truncate font-mono">{head}</span>
              <select
                className="field w-auto"
                aria-label={`what ${head} is`}
                value={written(roles[column] ?? { is: 'nothing' })}
                onChange={(event) => choose(column, event.target.value)}
              >
                {ROLES.map(([role, words]) => (
                  <option key={role} value={role}>
                    {words}
                  </option>
                ))}
                <optgroup label="values of">
                  {names.map(([id, name]) => (
                    <option key={id} value={`values:${id}`}>
                      {name}
                    </option>
                  ))}
                </optgroup>
              </select>
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {table.rows.slice(0, SHOWN_ROWS).map((cells, at) => (
          <tr key={at} className="border-t border-line-soft">
            {table.heads.map((head, column) => {
              const isFaulty = outcome.faults.some(
                (fault) => fault.row === at + 1 && fault.column === head,
              );
              const isOut = roles[column]?.is === 'nothing';
              return (
                <td
                  key={column}
                  className={
                    'px-2 py-0.5 font-mono ' +
                    (isFaulty ? 'bg-warn-soft text-warn' : isOut ? 'text-ink-2' : '')
                  }
                >
                  {cells[column] ?? ''}
                </td>
              );
            })}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

interface TableSourceProps {
  guarded: (work: () => ForeignTable | Promise<ForeignTable>) => void;
  message: string | null;
  kept: number | null;
  studyId: string;
}

/** Where the table comes from: a file or the clipboard. */
function TableSource({ guarded, message, kept, studyId }: TableSourceProps) {
  return (
    <section className="grid gap-3 sheet p-3 md:grid-cols-2" aria-label="Table">
      <label>
        a file, .csv or .xlsx
        <input
          type="file"
          className="mt-1 block w-full text-xs"
          accept=".csv,.tsv,.txt,.xlsx"
          onChange={(event) => {
            const file = event.target.files?.[0];
            if (file) guarded(() => tableOfFile(file));
          }}
        />
      </label>
      <label>
        or cells copied from a spreadsheet, heads too
        <textarea
          className="mt-1 h-16 field font-mono text-xs"
          placeholder="paste here"
          value=""
          onChange={() => undefined}
          onPaste={(event) => {
            event.preventDefault();
            const text = event.clipboardData.getData('text');
            guarded(() => tableOfText(text));
          }}
        />
      </label>
      {message && (
        <p role="alert" className="text-warn">
          {message}
        </p>
      )}
      {kept !== null && (
        <p role="status">
          {counted(kept, 'reading')} saved.{' '}
          <a href={`/studies/${studyId}/results/accuracy`}>See what they show</a>
        </p>
      )}
    </section>
  );
}
