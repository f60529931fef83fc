import type { Transaction } from 'sequelize';
import type { LedgerEvent } from '../../core/ledger';
import { columnsOf, type AnyRow } from '../../core/study';
import { change, execute, select, type Database } from '../database';
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

const PRINT_COLUMNS = columnsOf('prints')
  .map((column) => `p."${column.name}"`)
  .concat('p.row_version')
  .join(', ');

/** How the prints of a contender's artefact ended. */
export interface CellTally {
  contender_id: string;
  artefact_id: string;
  success: number;
  rescued: number;
  failed: number;
  aborted: number;
}

/** The prints that were put down last, so many of each contender and artefact. */
export const latestPrints = (
  db: Database,
  studyId: string,
  perCell: number,
): Promise<VersionedRow[]> =>
  select<VersionedRow>(
    db,
    `select ${PRINT_COLUMNS} from (
       select *, row_number() over (partition by contender_id, artefact_id order by ordinal desc) as place
       from prints where study_id = $1
     ) p where place <= $2 order by p.ordinal`,
    [studyId, perCell],
  );

/** How all prints of a study ended, by contender and artefact. */
export const tallyPrints = (db: Database, studyId: string): Promise<CellTally[]> =>
  select<CellTally>(
    db,
    `select contender_id, artefact_id,
       count(*) filter (where outcome = 'success')::int as success,
       count(*) filter (where outcome = 'rescued')::int as rescued,
       count(*) filter (where outcome = 'failed')::int as failed,
       count(*) filter (where outcome = 'aborted')::int as aborted
     from prints where study_id = $1 group by contender_id, artefact_id`,
    [studyId],
  );

/** The places of the plan that are printed. */
export const printedPlaces = (
  db: Database,
  studyId: string,
  transaction?: Transaction,
): Promise<{ contender_id: string; artefact_id: string; repeat: number }[]> =>
  select(
    db,
    'select contender_id, artefact_id, repeat from prints where study_id = $1',
    [studyId],
    transaction,
  );

/** The prints that a machine has made. */
export const printsOfMachine = (
  db: Database,
  studyId: string,
  machineId: string,
): Promise<VersionedRow[]> =>
  select<VersionedRow>(
    db,
    `select ${PRINT_COLUMNS} from prints p
     join contenders c on c.study_id = p.study_id and c.contender_id = p.contender_id
     where p.study_id = $1 and c.machine_id = $2 order by p.ordinal`,
    [studyId, machineId],
  );

/** The incidents that were noted last. */
export const latestIncidents = (
  db: Database,
  studyId: string,
  most: number,
): Promise<VersionedRow[]> =>
  select<VersionedRow>(
    db,
    `select * from (
       select ${columnsOf('incidents')
         .map((column) => `"${column.name}"`)
         .join(', ')}, row_version, ordinal
       from incidents where study_id = $1 order by at desc nulls last limit $2
     ) i order by ordinal`,
    [studyId, most],
  );

/** Mean seconds of a contender's finished prints of an artefact, by what they went into. */
export interface WallClock {
  contender: string;
  artefact: string;
  prints: number;
  heat_s: number;
  print_s: number;
  paused_s: number;
}

/** Where the wall-clock time of finished prints went; what is not known counts as 0. */
export const wallClocks = (db: Database, studyId: string): Promise<WallClock[]> =>
  select<WallClock>(
    db,
    `select contender_id as contender, artefact_id as artefact, count(*)::int as prints,
       avg(coalesce(heat_s, 0)) as heat_s, avg(print_s) as print_s,
       avg(coalesce(paused_s, 0)) as paused_s
     from prints
     where study_id = $1 and outcome in ('success', 'rescued') and print_s is not null
     group by contender_id, artefact_id`,
    [studyId],
  );

/** The sliced files that a contender's prints and its plan name. */
export const filesOfContenders = (
  db: Database,
  studyId: string,
): Promise<{ contender_id: string; toolpath: string }[]> =>
  select(
    db,
    `select contender_id, toolpath from prints where study_id = $1 and toolpath is not null
     union select contender_id, toolpath from planned where study_id = $1 and toolpath is not null`,
    [studyId],
  );

/** The print that runs on a machine, if one does. */
export async function openPrintOfMachine(
  db: Database,
  studyId: string,
  machineId: string,
  transaction?: Transaction,
): Promise<VersionedRow | null> {
  const columns = columnsOf('open_prints').map((column) => `p."${column.name}"`);
  const [row] = await select<VersionedRow>(
    db,
    `select ${columns.join(', ')}, p.row_version from open_prints p
     join contenders c on c.study_id = p.study_id and c.contender_id = p.contender_id
     where p.study_id = $1 and c.machine_id = $2 order by p.ordinal limit 1`,
    [studyId, machineId],
    transaction,
  );
  return row ?? null;
}

/** What happened to a print while it ran, in the order of its times. */
export const eventsOfPrint = (
  db: Database,
  studyId: string,
  printId: string,
  transaction?: Transaction,
): Promise<LedgerEvent[]> =>
  select<LedgerEvent>(
    db,
    'select at, kind from print_events where study_id = $1 and print_id = $2 order by ordinal',
    [studyId, printId],
    transaction,
  );
