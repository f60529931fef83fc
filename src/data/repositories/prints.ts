import type { Transaction } from 'sequelize';
import type { AnyRow } from '../../core/study';
import { change, execute, type Database } from '../database';
import { insertRow, type VersionedRow } from './rows';

/**
 * Puts down how a print ended, with the parts that came off the plate. Where the print was open, it
 * is no longer. Sent again, it counts once.
 */
export function endPrint(
  db: Database,
  studyId: string,
  print: AnyRow,
  specimens: readonly AnyRow[],
  who: string | null,
): Promise<VersionedRow> {
  return change(db, (transaction) =>
    endPrintWithin(db, studyId, print, specimens, who, transaction),
  );
}

/** The same within a transaction of the caller's. */
export async function endPrintWithin(
  db: Database,
  studyId: string,
  print: AnyRow,
  specimens: readonly AnyRow[],
  who: string | null,
  transaction: Transaction,
): Promise<VersionedRow> {
  await execute(
    db,
    'delete from open_prints where study_id = $1 and print_id = $2',
    [studyId, print.print_id],
    transaction,
  );
  const kept = await insertRow(db, studyId, 'prints', print, who, transaction);
  for (const specimen of specimens) {
    await insertRow(db, studyId, 'specimens', specimen, who, transaction);
  }
  return kept;
}
