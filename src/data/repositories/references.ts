import * as z from 'zod';
import {
  TABLE_NAMES,
  tableSpec,
  type AnyRow,
  type Reference,
  type TableName,
  tableOfReference,
} from '../../core/model/study';
import { query, type Database } from '../database';

/** A cell that names a row which is not there. */
export interface BrokenReference {
  column: string;
  message: string;
}

const brokenReferencesRow = z.record(z.string(), z.boolean());

/** Finds what a row names and is not there. */
export async function brokenReferences(
  db: Database,
  studyId: string,
  table: TableName,
  row: AnyRow,
): Promise<BrokenReference[]> {
  const named = (tableSpec(table).references ?? []).filter((reference) =>
    columnsOfReference(reference).every((column) => row[column] != null),
  );
  if (named.length === 0) return [];
  const bind: unknown[] = [studyId];
  const questions = named.map(
    (reference, at) => `exists (${targetOf(table, reference, row, bind)}) as r${at}`,
  );
  const [found] = await query(db, brokenReferencesRow, `select ${questions.join(', ')}`, bind);
  return named.flatMap((reference, at): BrokenReference[] =>
    found?.[`r${at}`] === true
      ? []
      : [
          {
            column: columnsOfReference(reference).at(-1) ?? '',
            message: `is not among the ${tableSpec(tableOfReference(reference)).title}`,
          },
        ],
  );
}

const columnsOfReference = (reference: Reference): readonly string[] =>
  reference.scope === 'id' ? [reference.column] : reference.columns;

/** What happens to a print happens while it runs: these name open prints too. */
const OF_OPEN_PRINTS: readonly TableName[] = ['incidents', 'print_events'];

/** A query for the row that a reference names; what it binds is added to `bind`. */
function targetOf(table: TableName, reference: Reference, row: AnyRow, bind: unknown[]): string {
  const columns = columnsOfReference(reference);
  const bound = (value: unknown) => `$${bind.push(value)}`;
  const target = tableSpec(tableOfReference(reference)).key.slice(-columns.length);
  const own = columns.map((column) => bound(row[column]));
  const conditions = target.map((column, at) => `t."${column}" = ${own[at]}`);
  if (reference.scope === 'artefact') conditions.push(`t.artefact_id = ${bound(row.artefact_id)}`);
  else if (reference.scope === 'specimen') {
    conditions.push(
      `t.artefact_id = (select p.artefact_id from specimens s
         join prints p on p.study_id = s.study_id and p.print_id = s.print_id
         where s.study_id = $1 and s.specimen_id = ${bound(row.specimen_id)})`,
    );
  }
  const from = (other: string) =>
    `select 1 from ${other} t where t.study_id = $1 and ${conditions.join(' and ')}`;
  const isOpenToo = reference.table === 'prints' && OF_OPEN_PRINTS.includes(table);
  return isOpenToo ? `${from('prints')} union all ${from('open_prints')}` : from(reference.table);
}

const rowsNamingRow = z.strictObject({ n: z.number() });

/**
 * How many rows of which tables name a row.
 *
 * @param key the row's key
 */
export async function rowsNaming(
  db: Database,
  studyId: string,
  table: TableName,
  key: AnyRow,
): Promise<ReadonlyMap<TableName, number>> {
  const counts = new Map<TableName, number>();
  for (const other of TABLE_NAMES) {
    for (const reference of tableSpec(other).references ?? []) {
      if (reference.table !== table) continue;
      const columns = columnsOfReference(reference);
      const target = tableSpec(table).key.slice(-columns.length);
      const bind: unknown[] = [studyId, ...target.map((column) => key[column])];
      const conditions = columns.map((column, at) => `t."${column}" = $${at + 2}`);
      if (reference.scope === 'artefact' || reference.scope === 'specimen') {
        bind.push(key.artefact_id);
        conditions.push(
          reference.scope === 'artefact'
            ? `t.artefact_id = $${bind.length}`
            : `t.specimen_id in (select s.specimen_id from specimens s
                 join prints p on p.study_id = s.study_id and p.print_id = s.print_id
                 where s.study_id = $1 and p.artefact_id = $${bind.length})`,
        );
      }
      const [found] = await query(
        db,
        rowsNamingRow,
        `select count(*)::int as n from ${other} t where t.study_id = $1 and ${conditions.join(' and ')}`,
        bind,
      );
      counts.set(other, (counts.get(other) ?? 0) + (found?.n ?? 0));
    }
  }
  return counts;
}

const machineOfPrintRow = z.strictObject({ machine_id: z.string() });

/** The machine that a print, ended or open, was made on; null where there is no such print. */
export async function machineOfPrint(
  db: Database,
  studyId: string,
  printId: string,
): Promise<string | null> {
  const [found] = await query(
    db,
    machineOfPrintRow,
    `select c.machine_id from (
       select contender_id from prints where study_id = $1 and print_id = $2
       union all select contender_id from open_prints where study_id = $1 and print_id = $2
     ) p join contenders c on c.study_id = $1 and c.contender_id = p.contender_id`,
    [studyId, printId],
  );
  return found?.machine_id ?? null;
}
