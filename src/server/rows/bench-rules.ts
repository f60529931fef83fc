import { whyNotNow, type LedgerEvent } from '../../core/model/ledger';
import { instant, type AnyRow, type TableName } from '../../core/model/study';
import { eventsOfPrint, openPrintOfMachine, rowOrNull, type Write } from '../../data';

export interface BenchIssue {
  path: string;
  message: string;
}

/** What cannot be at a bench, though the row itself is whole: told with the reason. */
export async function benchIssues(
  write: Write,
  table: TableName,
  row: AnyRow,
): Promise<BenchIssue[]> {
  if (table === 'print_events') return eventIssues(write, row);
  if (table === 'open_prints') return openIssues(write, row);
  if (table === 'prints') return timeIssues(row);
  if (table === 'machine_changes') return futureIssues(row);
  return [];
}

/** Times of an ended print that do not fit into each other. */
function timeIssues(row: AnyRow): BenchIssue[] {
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

/** Clocks of browsers go ahead a little. */
const CLOCK_SLACK_MS = 10 * 60_000;

/** What was changed on a machine has been changed: a plan is none. */
function futureIssues({ at }: AnyRow): BenchIssue[] {
  if (typeof at !== 'string' || instant(at) <= Date.now() + CLOCK_SLACK_MS) return [];
  return [{ path: 'at', message: 'is in the future: enter a change once it is made' }];
}

async function openIssues({ db, studyId }: Write, row: AnyRow): Promise<BenchIssue[]> {
  const print_id = String(row.print_id);
  if (await rowOrNull(db, studyId, 'prints', { print_id })) {
    return [{ path: 'print_id', message: 'is a print that has ended' }];
  }
  const contender_id = String(row.contender_id);
  const contender = await rowOrNull(db, studyId, 'contenders', { contender_id });
  if (!contender) return [{ path: 'contender_id', message: 'is not among the contenders' }];
  const running = await openPrintOfMachine(db, studyId, contender.machine_id);
  if (!running || running.print_id === print_id) return [];
  return [
    {
      path: 'contender_id',
      message:
        `is on a machine that is printing already (${running.artefact_id}, repeat ` +
        `${running.repeat}): end that print first`,
    },
  ];
}

async function eventIssues({ db, studyId }: Write, row: AnyRow): Promise<BenchIssue[]> {
  const print_id = String(row.print_id);
  const open = await rowOrNull(db, studyId, 'open_prints', { print_id });
  if (!open) {
    const isEnded = (await rowOrNull(db, studyId, 'prints', { print_id })) !== null;
    const message = isEnded ? 'is a print that has ended' : 'is not among the prints';
    return [{ path: 'print_id', message }];
  }
  if (open.started_at === null) return [];
  // The same event sent again is no second one.
  if (await rowOrNull(db, studyId, 'print_events', { event_id: String(row.event_id) })) return [];
  const events = await eventsOfPrint(db, studyId, print_id);
  const event = { at: String(row.at), kind: row.kind as LedgerEvent['kind'] };
  const why = whyNotNow(open.started_at, events, event);
  return why === null ? [] : [{ path: 'kind', message: why }];
}
