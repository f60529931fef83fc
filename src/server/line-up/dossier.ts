import { dossierEntries, type DossierEntry } from '../../core/measures/dossier';
import { outdatedPrints } from '../../core/model/ledger';
import {
  factDifferences,
  factsOf,
  recordOf,
  type FactDifference,
  type MachineRecord,
} from '../../core/answers/workshop';
import { emptyTables } from '../../core/model/study';
import {
  listRows,
  listRowsBy,
  printsOfMachine,
  rowOrNull,
  itemsOfStudy,
  type Stored,
} from '../../data';
import type { App } from '../app';

/** Everything that is known of one machine over time. */
export interface Dossier {
  machine: Stored<'machines'>;
  entries: DossierEntry[];
  changes: Stored<'machine_changes'>[];
  record: MachineRecord;
  /** Prints whose firmware is not the machine's own any more. */
  outdated: { print_id: string; firmware: string }[];
  /** The machine in the workshop, and what of it is another today. */
  uid: string | null;
  today: FactDifference[];
}

/** Reads a machine's dossier; null where there is no such machine. */
export async function dossierOf(
  app: App,
  studyId: string,
  machineId: string,
): Promise<Dossier | null> {
  const { db } = app;
  const [machine, contenders, prints, incidents, changes, artefacts] = await Promise.all([
    rowOrNull(db, studyId, 'machines', { machine_id: machineId }),
    listRowsBy(db, studyId, 'contenders', 'machine_id', machineId),
    printsOfMachine(db, studyId, machineId),
    listRowsBy(db, studyId, 'incidents', 'machine_id', machineId),
    listRowsBy(db, studyId, 'machine_changes', 'machine_id', machineId),
    listRows(db, studyId, 'artefacts'),
  ]);
  if (!machine) return null;
  const thing = (await itemsOfStudy(db, studyId, 'machine')).find((one) => one.id === machineId);
  const tables = { ...emptyTables(), contenders, prints, incidents, artefacts };
  return {
    machine,
    entries: dossierEntries({ tables: { ...tables, machine_changes: changes } }),
    changes,
    record: recordOf(prints, incidents.length, machine.firmware),
    uid: thing?.uid ?? null,
    today: thing ? factDifferences('machine', factsOf('machine', { ...machine }), thing.facts) : [],
    outdated: outdatedPrints(prints, machine.firmware),
  };
}
