import { medianOrNull } from '../../../core/statistics/stats';
import type { CellTally, OrderedPrint } from '../../../contract/plan';
import type { Stored } from '../../../contract/rows';
import { ledgerOf } from '../../../core/model/ledger';
import type { PrintEventKind } from '../../../core/model/study';
import type { RunState } from '../../marks/RunMark';

/** A print, ended or running. */
export type AnyPrint = Stored<'prints'> | Stored<'open_prints'>;

/** One place of the matrix: a repeat of an artefact with a contender, printed or due. */
export interface RunCell {
  contender: string;
  artefact: string;
  repeat: number;
  state: RunState;
  /** The print, ended or open; null where it is due. */
  print: AnyPrint | null;
}

/**
 * The matrix' cells by `artefact contender`: as many as are planned, and without a plan every
 * contender with the same repeats of an artefact.
 */
export function runCells(
  artefacts: readonly string[],
  contenders: readonly string[],
  prints: readonly Stored<'prints'>[],
  openPrints: readonly Stored<'open_prints'>[],
  planned: readonly Stored<'planned'>[] = [],
  tallies: readonly CellTally[] = [],
): Map<string, RunCell[]> {
  const cells = new Map<string, RunCell[]>();
  const all: { print: AnyPrint; state: RunState }[] = [
    ...prints.map((print) => ({ print, state: print.outcome })),
    ...openPrints.map((print) => ({ print, state: 'open' as const })),
  ];
  for (const artefact of artefacts) {
    const own = all.filter(({ print }) => print.artefact_id === artefact);
    const largest = own.reduce((highest, { print }) => Math.max(highest, print.repeat), 0);
    for (const contender of contenders) {
      const here = own.filter(({ print }) => print.contender_id === contender);
      const row: RunCell[] = here.map(({ print, state }) => ({
        contender,
        artefact,
        repeat: print.repeat,
        state,
        print,
      }));
      const plan = planned.filter(
        (one) => one.artefact_id === artefact && one.contender_id === contender,
      );
      const due = planned.length > 0 ? plan.reduce((sum, one) => sum + one.repeats, 0) : largest;
      // Of very many prints only the latest are here: the places before them are not due.
      const tally = tallies.find(
        (one) => one.artefact_id === artefact && one.contender_id === contender,
      );
      const isCut = countOf(tally) > here.filter(({ state }) => state !== 'open').length;
      const done = new Set(row.map((cell) => cell.repeat));
      for (let repeat = 1; repeat <= due; repeat += 1) {
        if (!done.has(repeat) && !isCut)
          row.push({ contender, artefact, repeat, state: 'due', print: null });
      }
      row.sort((a, b) => a.repeat - b.repeat);
      cells.set(`${artefact} ${contender}`, row);
    }
  }
  return cells;
}

/** How many prints a tally counts. */
export const countOf = (tally: CellTally | undefined): number =>
  tally ? tally.success + tally.rescued + tally.failed + tally.aborted : 0;

/** The repeat that comes next for a contender and artefact. */
export function nextRepeat(cells: readonly RunCell[]): number {
  const due = cells.find((cell) => cell.state === 'due');
  return due?.repeat ?? Math.max(0, ...cells.map((cell) => cell.repeat)) + 1;
}

/** The median of the known printing times of finished prints, s. */
export const medianTime = (cells: readonly RunCell[]): number | null =>
  medianOrNull(
    cells
      .filter((cell) => cell.state === 'success' || cell.state === 'rescued')
      .flatMap((cell) => cell.print?.print_s ?? []),
  );

/** The print that comes next: the first due one of the plan's order whose machine is free. */
export function nextCell(
  cells: readonly RunCell[],
  order: readonly OrderedPrint[],
  isBusy: (contender: string) => boolean,
): RunCell | undefined {
  const due = cells.filter((cell) => cell.state === 'due' && !isBusy(cell.contender));
  for (const print of order) {
    const cell = due.find(
      (one) =>
        one.contender === print.contender_id &&
        one.artefact === print.artefact_id &&
        one.repeat === print.repeat,
    );
    if (cell) return cell;
  }
  return due[0];
}

/** What turning a print over means now: pausing it, or going on. */
export function turnOf(print: AnyPrint, events: readonly Stored<'print_events'>[]): PrintEventKind {
  if (print.started_at === null) return 'paused';
  const own = events.filter((event) => event.print_id === print.print_id);
  const { state } = ledgerOf(print.started_at, own, '2199-01-01T00:00:00Z');
  return state === 'paused' ? 'resumed' : state === 'stalled' ? 'moved' : 'paused';
}

/** The tallies with one more print in them. */
export function tallied(tallies: readonly CellTally[], print: Stored<'prints'>): CellTally[] {
  const is = (one: CellTally) =>
    one.contender_id === print.contender_id && one.artefact_id === print.artefact_id;
  const before = tallies.find(is) ?? {
    contender_id: print.contender_id,
    artefact_id: print.artefact_id,
    success: 0,
    rescued: 0,
    failed: 0,
    aborted: 0,
  };
  const { outcome } = print;
  return [...tallies.filter((one) => !is(one)), { ...before, [outcome]: before[outcome] + 1 }];
}
