import { instant } from '../core/study';
import { listRows, printsOfMachine, type VersionedRow } from '../data';
import { app } from './app';

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
  machine: VersionedRow;
  entries: DossierEntry[];
  changes: VersionedRow[];
  totals: { prints: number; hours: number; metres: number; incidents: number };
  /** Prints whose firmware is not the machine's own any more. */
  outdated: { print_id: string; firmware: string }[];
}

/** Reads a machine's dossier; null where there is no such machine. */
export async function dossierOf(studyId: string, machineId: string): Promise<Dossier | null> {
  const { db } = app();
  const [machines, contenders, prints, incidents, changes, artefacts] = await Promise.all([
    listRows(db, studyId, 'machines'),
    listRows(db, studyId, 'contenders'),
    printsOfMachine(db, studyId, machineId),
    listRows(db, studyId, 'incidents'),
    listRows(db, studyId, 'machine_changes'),
    listRows(db, studyId, 'artefacts'),
  ]);
  const machine = machines.find((row) => row.machine_id === machineId);
  if (!machine) return null;
  const labels = new Map(
    contenders
      .filter((row) => row.machine_id === machineId)
      .map((row) => [row.contender_id, String(row.label)]),
  );
  const names = new Map(artefacts.map((row) => [row.artefact_id, String(row.name)]));
  const own = prints;
  const troubles = incidents.filter((row) => row.machine_id === machineId);
  const changed = changes.filter((row) => row.machine_id === machineId);
  const entries: DossierEntry[] = [
    ...own.flatMap((row): DossierEntry[] =>
      typeof row.started_at === 'string'
        ? [
            {
              at: row.started_at,
              kind: 'print',
              text: `${names.get(row.artefact_id ?? null) ?? ''}, repeat ${String(row.repeat)}, ${labels.get(row.contender_id ?? null) ?? ''}`,
              print_id: String(row.print_id),
              outcome: String(row.outcome),
            },
          ]
        : [],
    ),
    ...troubles.flatMap((row): DossierEntry[] =>
      typeof row.at === 'string'
        ? [
            {
              at: row.at,
              kind: 'incident',
              text: [String(row.mode), row.note].filter(Boolean).join(': '),
              print_id: row.print_id === null ? null : String(row.print_id),
              outcome: String(row.cause),
            },
          ]
        : [],
    ),
    ...changed.map((row): DossierEntry => ({
      at: String(row.at),
      kind: 'change',
      text: `${String(row.kind)}: ${String(row.what)}`,
      ...{ print_id: null, outcome: null },
    })),
    ...firmwareTurns(own),
  ];
  entries.sort((a, b) => instant(b.at) - instant(a.at));
  return {
    machine,
    entries,
    changes: changed,
    totals: {
      prints: own.length,
      hours: own.reduce((sum, row) => sum + (Number(row.heat_s) + Number(row.print_s)) / 3600, 0),
      metres: own.reduce((sum, row) => sum + Number(row.filament_m ?? 0), 0),
      incidents: troubles.length,
    },
    outdated: own.flatMap((row) =>
      row.firmware !== null && machine.firmware !== null && row.firmware !== machine.firmware
        ? [{ print_id: String(row.print_id), firmware: String(row.firmware) }]
        : [],
    ),
  };
}

/** Where the firmware that the prints name is another than before. */
function firmwareTurns(prints: readonly VersionedRow[]): DossierEntry[] {
  const timed = prints
    .filter((row) => typeof row.started_at === 'string' && row.firmware !== null)
    .sort((a, b) => instant(String(a.started_at)) - instant(String(b.started_at)));
  return timed.flatMap((row, at): DossierEntry[] => {
    const before = timed[at - 1]?.firmware;
    return before != null && before !== row.firmware
      ? [
          {
            at: String(row.started_at),
            kind: 'change',
            text: `firmware: prints name ${String(row.firmware)} from here on, ${String(before)} before`,
            ...{ print_id: null, outcome: null },
          },
        ]
      : [];
  });
}
