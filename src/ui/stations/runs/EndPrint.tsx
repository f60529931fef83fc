import { useRef, useState } from 'react';
import { v7 as uuid } from 'uuid';
import { nextCodes } from '../../../core/model/study/codes';
import { readNumber } from '../../lib/entry';
import { sendOrKeep } from '../../lib/outbox';
import type { FieldSpec } from '../../records/fields';
import { NewRecord } from '../../records/NewRecord';
import type { TableRow } from '../../records/RecordTable';
import type { Value, Values } from '../../records/use-record';

/** More parts than this come off no plate. */
const MOST_PARTS = 500;
const A_COUNT = `a whole number, ${MOST_PARTS} at most`;

interface EndPrintProps {
  studyId: string;
  /** What is known of the print: an open one's row, or a new one's beginnings. */
  print: Values;
  fields: readonly FieldSpec[];
  /** Where the copies lie that the mesh places, mm. */
  places: readonly (readonly [number, number])[];
  codes: readonly string[];
  /** Values that are laid into the form while it is filled in. */
  offered?: Values | null;
  /** What follows from a value for other fields. */
  derive?: (name: string, value: Value, values: Values) => Values;
  onEnded: (row: TableRow, stickers: readonly string[]) => void;
  onCancel: () => void;
}

/**
 * How a print ended: outcome, times, masses; and how many parts came off the plate. The server gives each part the
 * code for its sticker: those that are shown before are what is free now.
 */
export function EndPrint(props: EndPrintProps) {
  const { studyId, print, fields, places, codes, onEnded, onCancel } = props;
  const [copies, setCopies] = useState(String(Math.max(1, places.length)));
  const entry = readNumber(copies);
  const wanted = 'value' in entry ? entry.value : null;
  const isCount =
    wanted !== null && Number.isInteger(wanted) && wanted >= 0 && wanted <= MOST_PARTS;
  const count = isCount ? wanted : null;
  const [ids] = useState(() => Array.from({ length: MOST_PARTS }, () => uuid()));
  const stickers = nextCodes(codes, count ?? 0);
  const given = useRef<readonly string[]>([]);
  const send = async (values: Values): Promise<TableRow> => {
    const { row_version: _, ...row } = values;
    const isPart = row.outcome === 'success' || row.outcome === 'rescued';
    if (isPart && count === null) {
      throw new Error(`Say how many parts came off the plate: ${A_COUNT}.`);
    }
    const specimens = isPart
      ? Array.from({ length: count ?? 0 }, (_, at) => ({
          specimen_id: ids[at],
          print_id: row.print_id,
          copy: at + 1,
          plate_x_mm: places[at]?.[0] ?? null,
          plate_y_mm: places[at]?.[1] ?? null,
        }))
      : [];
    const kept = await sendOrKeep<TableRow & { specimens?: { code: string | null }[] }>(
      `/studies/${studyId}/prints`,
      { print: row, specimens },
    );
    if (!kept) return { ...row, row_version: 1 };
    const { specimens: parts = [], ...stored } = kept;
    given.current = parts.flatMap(({ code }) => code ?? []);
    return stored as TableRow;
  };
  return (
    <>
      <label className="mb-2 flex flex-wrap items-center gap-2 text-xs text-ink-2">
        parts that came off the plate
        <input
          className="field w-24"
          inputMode="numeric"
          value={copies}
          aria-invalid={count === null}
          onChange={(event) => setCopies(event.target.value)}
        />
        <span>
          {count === null
            ? A_COUNT
            : stickers.length === 0
              ? 'no part'
              : `stickers from ${stickers[0]} on, as free when you save`}
        </span>
      </label>
      <NewRecord
        fields={fields}
        {...(print.print_id == null && { idColumn: 'print_id' })}
        initial={print}
        label="End of the print"
        action="Save print"
        send={send}
        {...(props.offered && { offered: props.offered })}
        {...(props.derive && { derive: props.derive })}
        onAdded={(row) => onEnded(row, given.current)}
        onCancel={onCancel}
      />
    </>
  );
}
