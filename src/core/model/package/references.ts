import {
  tableSpec,
  type Intent,
  type Reference,
  type TableName,
  quote,
  tableOfReference,
} from '../study';
import type { FaultList } from './fault';
import { keyOf, type LoadedRow, type LoadedTable } from './loaded-table';

export type LoadedTables = ReadonlyMap<TableName, LoadedTable>;

/** The value of a cell where it could be read and is not empty. */
export function cellOf(
  row: Pick<LoadedRow, 'values'> | undefined,
  column: string,
): string | number | undefined {
  return row?.values[column] ?? undefined;
}

/** Finds rows of a loaded package by id, for checks that look further than one table. */
export class Lookup {
  readonly #byId = new Map<string, Map<string, LoadedRow>>();

  /** @param intent what the study asks; null where its descriptor could not be read */
  constructor(
    readonly tables: LoadedTables,
    readonly intent: Intent | null = null,
  ) {}

  /** The row of a table with this id. */
  row(table: TableName, id: string | number | undefined): LoadedRow | undefined {
    let rows = this.#byId.get(table);
    if (!rows) {
      const [key] = tableSpec(table).key;
      rows = new Map(
        (this.tables.get(table)?.rows ?? []).map((row) => [
          String(row.values[key ?? ''] ?? ''),
          row,
        ]),
      );
      this.#byId.set(table, rows);
    }
    return id === undefined ? undefined : rows.get(String(id));
  }

  /** The artefact that a specimen is a copy of. */
  artefactOfSpecimen(specimenId: string | number | undefined): string | undefined {
    const print = this.#printOfSpecimen(specimenId);
    const artefact = cellOf(print, 'artefact_id');
    return artefact === undefined ? undefined : String(artefact);
  }

  /** The contender that a specimen was printed with. */
  contenderOfSpecimen(specimenId: string | number | undefined): string | undefined {
    const contender = cellOf(this.#printOfSpecimen(specimenId), 'contender_id');
    return contender === undefined ? undefined : String(contender);
  }

  #printOfSpecimen(specimenId: string | number | undefined): LoadedRow | undefined {
    return this.row('prints', cellOf(this.row('specimens', specimenId), 'print_id'));
  }
}

/** Checks that every row that is named exists. `broken` are tables that could not be judged. */
export function checkReferences(
  lookup: Lookup,
  broken: ReadonlySet<TableName>,
  faults: FaultList,
): void {
  for (const table of lookup.tables.values()) {
    for (const reference of tableSpec(table.name).references ?? []) {
      const target = tableOfReference(reference);
      if (!broken.has(target)) checkReference(table, reference, target, lookup, faults);
    }
  }
}

function checkReference(
  table: LoadedTable,
  reference: Reference,
  target: TableName,
  lookup: Lookup,
  faults: FaultList,
): void {
  const keys = lookup.tables.get(target)?.keys;
  // An incident or an event may be noted while its print is still running.
  const alsoKeys =
    (table.name === 'incidents' || table.name === 'print_events') && target === 'prints'
      ? lookup.tables.get('open_prints')?.keys
      : undefined;
  const known = (key: string) => keys?.has(key) === true || alsoKeys?.has(key) === true;
  const title = tableSpec(target).title;
  for (const row of table.rows) {
    if (reference.scope === 'id') {
      const value = cellOf(row, reference.column);
      if (value === undefined || known(String(value))) continue;
      faults.add(
        table.file,
        row.line,
        reference.column,
        `${quote(String(value))} is not among the ${title} (${target}.csv)`,
      );
      continue;
    }
    const parts = reference.columns.map((column) => cellOf(row, column));
    if (parts.some((part) => part === undefined)) continue;
    if (reference.scope === 'key') {
      if (known(keyOf(parts))) continue;
      faults.add(
        table.file,
        row.line,
        '-',
        `${parts.map((part) => quote(String(part))).join(', ')} (${reference.columns.join(', ')}) ` +
          `is not among the ${title} (${target}.csv)`,
      );
      continue;
    }
    const artefact =
      reference.scope === 'artefact'
        ? cellOf(row, 'artefact_id')
        : lookup.artefactOfSpecimen(cellOf(row, 'specimen_id'));
    if (artefact === undefined || known(keyOf([artefact, ...parts]))) continue;
    const column = reference.columns.at(-1) ?? '-';
    if (reference.columns.length > 1 && !hasParent(lookup, artefact, parts)) continue;
    faults.add(
      table.file,
      row.line,
      column,
      `${quote(String(parts.at(-1)))} is not among the ${title} of artefact ${quote(String(artefact))} (${target}.csv)`,
    );
  }
}

/** Whether the ladder of a step is there: where it is not, that alone is told. */
function hasParent(
  lookup: Lookup,
  artefact: string | number,
  parts: readonly (string | number | undefined)[],
): boolean {
  return lookup.tables.get('ladders')?.keys.has(keyOf([artefact, parts[0]])) ?? false;
}
