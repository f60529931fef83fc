import { instant, type PrintEventKind } from '../study';

/** What a print is doing, by its events. */
export type PrintState = 'heating' | 'printing' | 'paused' | 'stalled' | 'ended';

/** Where the time of a print went, s. */
export interface Ledger {
  state: PrintState;
  heat_s: number;
  print_s: number;
  paused_s: number;
  /** Stood still, and nobody had noticed. */
  stalled_s: number;
  /** When the state began. */
  since: string;
  /** Whether somebody said when it was hot; where not, heating is within printing. */
  isHeatKnown: boolean;
}

export interface LedgerEvent {
  at: string;
  kind: PrintEventKind;
}

/** Which events may follow in which state. */
const NEXT: Readonly<Record<PrintState, readonly PrintEventKind[]>> = {
  heating: ['heated', 'paused', 'stalled', 'ended'],
  printing: ['heated', 'paused', 'stalled', 'ended'],
  paused: ['resumed', 'ended'],
  stalled: ['moved', 'paused', 'ended'],
  ended: [],
};

/** Why an event cannot follow what has happened; null where it can. */
export function whyNotNow(
  startedAt: string,
  events: readonly LedgerEvent[],
  event: LedgerEvent,
): string | null {
  const before = events.filter((one) => instant(one.at) <= instant(event.at));
  if (instant(event.at) < instant(startedAt)) return 'is before the print began';
  const { state } = ledgerOf(startedAt, before, event.at);
  if (NEXT[state].includes(event.kind)) return null;
  return `does not fit: the print was ${state} then`;
}

/**
 * Adds up where the time of a print went, from its start to `until`. Where nobody said when it was
 * hot, the time until then counts as printing.
 */
export function ledgerOf(startedAt: string, events: readonly LedgerEvent[], until: string): Ledger {
  const isHeatKnown = events.some((event) => event.kind === 'heated');
  const spent = { heating: 0, printing: 0, paused: 0, stalled: 0, ended: 0 };
  let state = (isHeatKnown ? 'heating' : 'printing') as PrintState;
  /** What a pause or a stand-still interrupted. */
  let before = state;
  let since = startedAt;
  const turn = (to: PrintState, at: string) => {
    spent[state] += Math.max(0, instant(at) - instant(since)) / 1000;
    state = to;
    since = at;
  };
  const ordered = [...events].sort((a, b) => instant(a.at) - instant(b.at));
  for (const { at, kind } of ordered) {
    if (instant(at) > instant(until)) break;
    if (kind === 'heated' && state === 'heating') turn('printing', at);
    else if (kind === 'paused' && state !== 'paused' && state !== 'ended') {
      if (state !== 'stalled') before = state;
      turn('paused', at);
    } else if (kind === 'stalled' && (state === 'printing' || state === 'heating')) {
      before = state;
      turn('stalled', at);
    } else if (
      (kind === 'resumed' && state === 'paused') ||
      (kind === 'moved' && state === 'stalled')
    ) {
      turn(before, at);
    } else if (kind === 'ended') turn('ended', at);
  }
  if (state !== 'ended') {
    spent[state] += Math.max(0, instant(until) - instant(since)) / 1000;
  }
  return {
    state,
    heat_s: spent.heating,
    print_s: spent.printing,
    paused_s: spent.paused,
    stalled_s: spent.stalled,
    since,
    isHeatKnown,
  };
}
