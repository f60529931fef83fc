import { recordOf, rowsAsColumns } from '../../core/model/study';
import { listRowsBy } from '../../data';
import type { App } from '../app';

/** The tables that are written at a machine, in the order in which things happen there. */
export const BOOK_TABLES = [
  'setup_steps',
  'checks',
  'heat_ups',
  'features',
  'claims',
  'noise',
  'trials',
  'marks',
  'material_notes',
  'enquiries',
  'machine_changes',
  'borrowed',
  'equipment',
] as const;

export type BookTable = (typeof BOOK_TABLES)[number];

/** What was written down of a machine in a study, table by table. */
export async function machineBook(
  app: App,
  studyId: string,
  machineId: string,
): Promise<Record<BookTable, Record<string, string | number | null>[]>> {
  const { db } = app;
  const pages = await Promise.all(
    BOOK_TABLES.map(
      async (table) =>
        [table, await listRowsBy(db, studyId, table, 'machine_id' as never, machineId)] as const,
    ),
  );
  return recordOf(BOOK_TABLES, (table) => rowsAsColumns(new Map(pages).get(table) ?? []));
}
