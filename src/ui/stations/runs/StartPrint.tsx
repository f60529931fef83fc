import { useState } from 'react';
import { NewRecord } from '../../records/NewRecord';
import type { FieldSpec } from '../../records/fields';
import type { Value, Values } from '../../records/use-record';
import { localIso } from '../../lib/entry';
import { readOperator } from '../../lib/operator';
import type { TableRow } from '../../records/RecordTable';
import { EndPrint } from './EndPrint';
import { NewLot } from './NewLot';
import type { RunCell } from './runs-model';

interface StartPrintProps {
  studyId: string;
  cell: RunCell;
  startFields: readonly FieldSpec[];
  endFields: readonly FieldSpec[];
  /** What the last print of this kind was made with. */
  usual: Values;
  /** Where the copies lie that the mesh places, mm. */
  places: readonly (readonly [number, number])[];
  codes: readonly string[];
  /** In what the files of this artefact differ and must not. */
  warning: string | null;
  /** What follows from a value for other fields. */
  derive: (name: string, value: Value) => Values;
  /** What follows for the filament from what is typed at the end. */
  deriveEnd: (name: string, value: Value, values: Values) => Values;
  /** The fields of a new lot, and what to do with one that was added. */
  lotFields: readonly FieldSpec[];
  onLot: (lot: { id: string; name: string }) => void;
  onStarted: (row: TableRow) => void;
  onEnded: (row: TableRow, stickers: readonly string[]) => void;
  onCancel: () => void;
}

/** Starts a print now, or puts down one that is over already. */
export function StartPrint(props: StartPrintProps) {
  const { studyId, cell, startFields, endFields, usual, codes } = props;
  const [isLate, setLate] = useState(false);
  const [offered, setOffered] = useState<Values | null>(null);
  const base: Values = {
    ...usual,
    contender_id: cell.contender,
    artefact_id: cell.artefact,
    repeat: cell.repeat,
    ...(readOperator() && { operator: readOperator() }),
  };
  return (
    <>
      {props.warning && (
        <p className="mb-3 rounded-sm border border-line bg-warn-soft p-2 text-warn" role="alert">
          {props.warning} <a href={`/studies/${studyId}/plan`}>See the plan</a>
        </p>
      )}
      <p className="mb-3 flex gap-2" role="group" aria-label="When">
        <button
          type="button"
          className={`action ${isLate ? '' : 'action-main'}`}
          aria-pressed={!isLate}
          onClick={() => setLate(false)}
        >
          It starts now
        </button>
        <button
          type="button"
          className={`action ${isLate ? 'action-main' : ''}`}
          aria-pressed={isLate}
          onClick={() => setLate(true)}
        >
          It is over already
        </button>
      </p>
      <NewLot
        studyId={studyId}
        fields={props.lotFields}
        onAdded={(added) => {
          props.onLot(added);
          setOffered({ material_id: added.id });
        }}
      />
      {isLate ? (
        <EndPrint
          studyId={studyId}
          print={base}
          fields={[...startFields, ...endFields]}
          places={props.places}
          codes={codes}
          offered={offered}
          derive={props.deriveEnd}
          onEnded={props.onEnded}
          onCancel={props.onCancel}
        />
      ) : (
        <NewRecord
          path={`/studies/${studyId}/rows/open_prints`}
          fields={startFields}
          idColumn="print_id"
          isKept
          offered={offered}
          derive={props.derive}
          initial={{ ...base, started_at: localIso(new Date()) }}
          label="Start a print"
          action="Start"
          onAdded={props.onStarted}
          onCancel={props.onCancel}
        />
      )}
    </>
  );
}
