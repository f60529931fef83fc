import { firmwareTurns, outdatedPrints } from '../../core/ledger';
import { instant, inWords } from '../../core/study';
import { listRows, listRowsBy, printsOfMachine, rowOrNull, type Stored } from '../../data';
import { app } from '../app';

/** Something that happened to a machine. */
export interface DossierEntry {
  at: string;
  kind: 'print' | 'incident' | 'change';
  text: string;
  /** The print that it is about. */
  print_id: string | null;
  outcome: string | null;
}

/** Everything that is known of one machine over time. */
export interface Dossier {
  machine: Stored<'machines'>;
  entries: DossierEntry[];
  changes: Stored<'machine_changes'>[];
  totals: { prints: number; hours: number; metres: number; incidents: number };
  /** Prints whose firmware is not the machine's own any more. */
  outdated: { print_id: string; firmware: string }[];
}

/** Reads a machine's dossier; null where there is no such machine. */
export async function dossierOf(studyId: string, machineId: string): Promise<Dossier | null> {
  const { db } = app();
  const [machine, contenders, prints, incidents, changes, artefacts] = await Promise.all([
    rowOrNull(db, studyId, 'machines', { machine_id: machineId }),
    listRowsBy(db, studyId, 'contenders', 'machine_id', machineId),
    printsOfMachine(db, studyId, machineId),
    listRowsBy(db, studyId, 'incidents', 'machine_id', machineId),
    listRowsBy(db, studyId, 'machine_changes', 'machine_id', machineId),
    listRows(db, studyId, 'artefacts'),
  ]);
  if (!machine) return null;
  const labels = new Map(contenders.map((row) => [row.contender_id, row.label]));
  const names = new Map(artefacts.map((row) => [row.artefact_id, row.name]));
  const entries: DossierEntry[] = [
    ...prints.flatMap((row): DossierEntry[] =>
      row.started_at === null
        ? []
        : [
            {
              at: row.started_at,
              kind: 'print',
              text: `${names.get(row.artefact_id) ?? ''}, repeat ${row.repeat}, ${labels.get(row.contender_id) ?? ''}`,
              print_id: row.print_id,
              outcome: row.outcome,
            },
          ],
    ),
    ...incidents.flatMap((row): DossierEntry[] =>
      row.at === null
        ? []
        : [
            {
              at: row.at,
              kind: 'incident',
              text: [inWords(row.mode), row.note].filter(Boolean).join(': '),
              print_id: row.print_id,
              outcome: row.cause,
            },
          ],
    ),
    ...changes.map((row): DossierEntry => ({
      at: row.at,
      kind: 'change',
      text: `${inWords(row.kind)}: ${row.what}`,
      ...{ print_id: null, outcome: null },
    })),
    ...firmwareTurns(prints).map(({ at, firmware, before }): DossierEntry => ({
      ...{ at, kind: 'change', print_id: null, outcome: null },
      text: `firmware: prints name ${firmware} from here on, ${before} before`,
    })),
  ];
  entries.sort((a, b) => instant(b.at) - instant(a.at));
  return {
    machine,
    entries,
    changes,
    totals: {
      prints: prints.length,
      hours: prints.reduce((sum, row) => sum + ((row.heat_s ?? 0) + (row.print_s ?? 0)) / 3600, 0),
      metres: prints.reduce((sum, row) => sum + (row.filament_m ?? 0), 0),
      incidents: incidents.length,
    },
    outdated: outdatedPrints(prints, machine.firmware),
  };
}
