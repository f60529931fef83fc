import {
  TABLE_NAMES,
  tableSpec,
  type AnyRow,
  type Reference,
  type TableName,
} from '../../core/study';
import { select, type Database } from '../database';

/** A cell that names a row which is not there. */
export interface BrokenReference {
  column: string;
  message: string;
}

/**
 * Finds what a row names and is not there, for references that no foreign key of the database
 * holds: those within an artefact, and by several columns.
 */
export async function brokenReferences(
  db: Database,
  studyId: string,
  table: TableName,
  row: AnyRow,
): Promise<BrokenReference[]> {
  const broken: BrokenReference[] = [];
  for (const reference of tableSpec(table).references ?? []) {
    if (reference.scope === 'id') continue;
    const columns = [...reference.columns];
    if (columns.some((column) => row[column] == null)) continue;
    if (!(await isThere(db, studyId, reference, columns, row))) {
      const target = reference.table as TableName;
      broken.push({
        column: columns.at(-1) ?? '',
        message: `is not among the ${tableSpec(target).title}`,
      });
    }
  }
  return broken;
}

async function isThere(
  db: Database,
  studyId: string,
  reference: Exclude<Reference, { scope: 'id' }>,
  columns: readonly string[],
  row: AnyRow,
): Promise<boolean> {
  const target = tableSpec(reference.table as TableName).key.slice(-columns.length);
  const conditions = columns.map((_, at) => `t."${target[at]}" = $${at + 2}`);
  const bind: unknown[] = [studyId, ...columns.map((column) => row[column])];
  if (reference.scope === 'artefact') {
    bind.push(row.artefact_id);
    conditions.push(`t.artefact_id = $${bind.length}`);
  } else if (reference.scope === 'specimen') {
    bind.push(row.specimen_id);
    conditions.push(
      `t.artefact_id = (select p.artefact_id from specimens s
         join prints p on p.study_id = s.study_id and p.print_id = s.print_id
         where s.study_id = $1 and s.specimen_id = $${bind.length})`,
    );
  }
  const found = await select(
    db,
    `select 1 from ${reference.table} t where t.study_id = $1 and ${conditions.join(' and ')} limit 1`,
    bind,
  );
  return found.length > 0;
}

/**
 * How many rows of which tables name a row, by references that no foreign key of the database holds:
 * those within an artefact, and by several columns.
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
      if (reference.scope === 'id' || reference.table !== table) continue;
      const target = tableSpec(table).key.slice(-reference.columns.length);
      const bind: unknown[] = [studyId, ...target.map((column) => key[column])];
      const conditions = reference.columns.map((column, at) => `t."${column}" = $${at + 2}`);
      if (reference.scope !== 'key') {
        bind.push(key.artefact_id);
        conditions.push(
          reference.scope === 'artefact'
            ? `t.artefact_id = $${bind.length}`
            : `t.specimen_id in (select s.specimen_id from specimens s
                 join prints p on p.study_id = s.study_id and p.print_id = s.print_id
                 where s.study_id = $1 and p.artefact_id = $${bind.length})`,
        );
      }
      const [found] = await select<{ n: number }>(
        db,
        `select count(*)::int as n from ${other} t where t.study_id = $1 and ${conditions.join(' and ')}`,
        bind,
      );
      counts.set(other, (counts.get(other) ?? 0) + (found?.n ?? 0));
    }
  }
  return counts;
}

/** The machine that a print, ended or open, was made on; null where there is no such print. */
export async function machineOfPrint(
  db: Database,
  studyId: string,
  printId: string,
): Promise<string | null> {
  const [found] = await select<{ machine_id: string }>(
    db,
    `select c.machine_id from (
       select contender_id from prints where study_id = $1 and print_id = $2
       union all select contender_id from open_prints where study_id = $1 and print_id = $2
     ) p join contenders c on c.study_id = $1 and c.contender_id = p.contender_id`,
    [studyId, printId],
  );
  return found?.machine_id ?? null;
}
