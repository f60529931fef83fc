import { whyNotNow, type LedgerEvent } from '../core/ledger';
import { instant, type AnyRow, type TableName } from '../core/study';
import { listRows, machineOfPrint, type VersionedRow } from '../data';
import { app } from './app';

export interface BenchIssue {
  path: string;
  message: string;
}

/** What cannot be at a bench, though the row itself is whole: told with the reason. */
export async function benchIssues(
  studyId: string,
  table: TableName,
  row: AnyRow,
): Promise<BenchIssue[]> {
  if (table === 'print_events') return eventIssues(studyId, row);
  if (table === 'open_prints') return openIssues(studyId, row);
  if (table === 'prints') return timeIssues(row);
  return [];
}

/** Times of an ended print that do not fit into each other. */
export function timeIssues(row: AnyRow): BenchIssue[] {
  const { started_at, ended_at, paused_s } = row;
  if (typeof started_at !== 'string' || typeof ended_at !== 'string') return [];
  const wall = (instant(ended_at) - instant(started_at)) / 1000;
  if (wall < 0) return [];
  if (typeof paused_s === 'number' && paused_s > wall + 1) {
    return [
      { path: 'paused_s', message: 'is longer than the whole print, from its start to its end' },
    ];
  }
  return [];
}

async function openIssues(studyId: string, row: AnyRow): Promise<BenchIssue[]> {
  const machine = await machineOfContender(studyId, row.contender_id);
  const running = await listRows(app().db, studyId, 'open_prints');
  for (const other of running) {
    if (other.print_id === row.print_id) continue;
    if ((await machineOfContender(studyId, other.contender_id)) !== machine) continue;
    return [
      {
        path: 'contender_id',
        message: `is on a machine that is printing already (${String(other.artefact_id)}, repeat ${String(other.repeat)}): end that print first`,
      },
    ];
  }
  return [];
}

async function machineOfContender(
  studyId: string,
  contender: string | number | null | undefined,
): Promise<string | null> {
  const contenders = await listRows(app().db, studyId, 'contenders');
  const row = contenders.find((one) => one.contender_id === contender);
  return row ? String(row.machine_id) : null;
}

async function eventIssues(studyId: string, row: AnyRow): Promise<BenchIssue[]> {
  const { db } = app();
  const id = String(row.print_id);
  const at = String(row.at);
  if ((await machineOfPrint(db, studyId, id)) === null) {
    return [{ path: 'print_id', message: 'is not among the prints' }];
  }
  const open = (await listRows(db, studyId, 'open_prints')).find((one) => one.print_id === id);
  if (!open || typeof open.started_at !== 'string') {
    return open ? [] : [{ path: 'print_id', message: 'is a print that has ended' }];
  }
  const events = (await listRows(db, studyId, 'print_events')).filter(
    (one) => one.print_id === id && one.event_id !== row.event_id,
  );
  const why = whyNotNow(open.started_at, asEvents(events), {
    at,
    kind: row.kind as LedgerEvent['kind'],
  });
  return why === null ? [] : [{ path: 'kind', message: why }];
}

/** Rows of events as the ledger reads them. */
export const asEvents = (rows: readonly VersionedRow[]): LedgerEvent[] =>
  rows.map((row) => ({ at: String(row.at), kind: row.kind as LedgerEvent['kind'] }));
