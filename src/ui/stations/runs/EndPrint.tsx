import { useState } from 'react';
import { v7 as uuid } from 'uuid';
import { nextCodes } from '../../../core/study/codes';
import { readNumber } from '../../lib/entry';
import { sendOrKeep } from '../../lib/outbox';
import type { FieldSpec } from '../../records/fields';
import { NewRecord } from '../../records/NewRecord';
import type { TableRow } from '../../records/RecordTable';
import type { Values } from '../../records/use-record';

interface EndPrintProps {
  studyId: string;
  /** What is known of the print: an open one's row, or a new one's beginnings. */
  print: Values;
  fields: readonly FieldSpec[];
  /** Where the copies lie that the mesh places, mm. */
  places: readonly (readonly [number, number])[];
  codes: readonly string[];
  onEnded: (row: TableRow) => void;
  onCancel: () => void;
}

/** How a print ended: outcome, times, masses; and a code for every part that came off the plate. */
export function EndPrint(props: EndPrintProps) {
  const { studyId, print, fields, places, codes, onEnded, onCancel } = props;
  const [copies, setCopies] = useState(String(Math.max(1, places.length)));
  const entry = readNumber(copies);
  const count =
    'value' in entry && Number.isInteger(entry.value) && Number(entry.value) >= 0
      ? Math.min(500, Number(entry.value))
      : null;
  const [ids] = useState(() => Array.from({ length: 500 }, () => uuid()));
  const stickers = nextCodes(codes, count ?? 0);
  const send = async (values: Values): Promise<TableRow> => {
    const { row_version: _, ...row } = values;
    const isPart = row.outcome === 'success' || row.outcome === 'rescued';
    const specimens = isPart
      ? stickers.map((code, at) => ({
          specimen_id: ids[at],
          print_id: row.print_id,
          copy: at + 1,
          plate_x_mm: places[at]?.[0] ?? null,
          plate_y_mm: places[at]?.[1] ?? null,
          code,
        }))
      : [];
    const kept = await sendOrKeep<TableRow>(`/studies/${studyId}/prints`, {
      print: row,
      specimens,
    });
    return kept ?? { ...row, row_version: 1 };
  };
  return (
    <>
      <label className="mb-2 block text-xs text-ink-2">
        parts that came off the plate
        <input
          className="field w-24"
          inputMode="numeric"
          value={copies}
          aria-invalid={count === null}
          onChange={(event) => setCopies(event.target.value)}
        />
        <span className="ml-2">
          {count === null
            ? 'a whole number'
            : stickers.length === 0
              ? 'no part'
              : `stickers ${stickers[0]}${stickers.length > 1 ? ` … ${stickers.at(-1)}` : ''}`}
        </span>
      </label>
      <NewRecord
        fields={fields}
        {...(print.print_id == null && { idColumn: 'print_id' })}
        initial={print}
        label="End of the print"
        action="Keep it"
        send={send}
        onAdded={onEnded}
        onCancel={onCancel}
      />
    </>
  );
}
