import {
  emptyTables,
  TABLE_NAMES,
  type AnyRow,
  type Study,
  type TableName,
  rowsAsColumns,
} from '../../model/study';

/** One machine as it stood in a study. */
export interface MachineThen {
  study: Study;
  machineId: string;
}

/** The one machine of a joined study. */
export const JOINED = 'machine';

/** The columns that name a row of the study, and not of an artefact of it. */
const OWN_IDS: ReadonlySet<string> = new Set([
  'contender_id',
  'profile_id',
  'parent_id',
  'material_id',
  'artefact_id',
  'print_id',
  'specimen_id',
  'instrument_id',
  'incident_id',
  'check_id',
  'trial_id',
  'claim_id',
  'enquiry_id',
  'borrowed_id',
  'change_id',
  'follow_up_id',
  'print_before',
  'print_after',
]);

/** Tables that are not joined: they are about more than one machine, or about words. */
const LEFT: ReadonlySet<TableName> = new Set<TableName>([
  'panels',
  'panel_setups',
  'panel_notes',
  'ballots',
  'ballot_times',
  'verdicts',
  'verdict_figures',
  'accepted_differences',
]);

/**
 * One machine's part of several studies as one study of one machine, from which its dossier is
 * computed. Ids are told apart by their study's place: `0:P-001`. It is nobody's study to be kept.
 */
export function joinedStudy(parts: readonly MachineThen[]): Study {
  const tables = emptyTables();
  const present = new Set<TableName>();
  parts.forEach(({ study, machineId }, at) => {
    for (const name of study.present) present.add(name);
    const own = ownRows(study, machineId);
    for (const name of TABLE_NAMES) {
      if (LEFT.has(name)) continue;
      const rows = (own[name] ?? []).map((row) => renamed(row, at));
      if (name === 'machines' && tables.machines.length > 0) continue;
      const known = rowsAsColumns(tables[name]);
      known.push(...(name === 'machine_changes' ? rows.filter(isNew(known)) : rows));
    }
  });
  const [first] = parts;
  return {
    meta: {
      name: 'dossier',
      title: 'Dossier',
      description: null,
      created: null,
      question: null,
      intent: 'machines' as const,
      reference: null,
      smallest_difference: {},
      cost: first?.study.meta.cost ?? null,
      scorecard: null,
    },
    tables,
    present,
  };
}

/** Whether a change of the machine is not one that another study has written down too. */
const isNew = (known: readonly AnyRow[]) => (row: AnyRow) =>
  !known.some((one) => ['at', 'kind', 'what'].every((column) => one[column] === row[column]));

/** A row whose ids are those of its study's place among the joined. */
function renamed(row: AnyRow, at: number): AnyRow {
  const changed: AnyRow = { ...row };
  for (const [column, value] of Object.entries(row)) {
    if (column === 'machine_id') changed[column] = JOINED;
    else if (OWN_IDS.has(column) && value !== null) changed[column] = `${at}:${value}`;
  }
  return changed;
}

/** The rows of a study that are about one machine: its own, and those of its prints. */
function ownRows({ tables }: Study, machineId: string): Partial<Record<TableName, AnyRow[]>> {
  const contenders = new Set(
    tables.contenders.filter((row) => row.machine_id === machineId).map((row) => row.contender_id),
  );
  const prints = new Set(
    tables.prints.filter((row) => contenders.has(row.contender_id)).map((row) => row.print_id),
  );
  const specimens = new Set(
    tables.specimens.filter((row) => prints.has(row.print_id)).map((row) => row.specimen_id),
  );
  const isOwn = (row: AnyRow): boolean => {
    if (typeof row.machine_id === 'string') return row.machine_id === machineId;
    if (typeof row.specimen_id === 'string') return specimens.has(row.specimen_id);
    if (typeof row.print_id === 'string') return prints.has(row.print_id);
    if (typeof row.print_before === 'string') return prints.has(row.print_before);
    if (typeof row.contender_id === 'string') return contenders.has(row.contender_id);
    return true;
  };
  return Object.fromEntries(
    TABLE_NAMES.map((name) => [name, rowsAsColumns(tables[name]).filter(isOwn)]),
  );
}
