import { outdatedPrints } from '../../model/ledger';
import { groupBy, instant, type Study } from '../../model/study';

/** What was found with another firmware than today's, and must be found again to hold. */
export interface Again {
  /** What it is: prints of an artefact, trials of a feature, a noise level. */
  what: string;
  kind: 'prints' | 'trials';
  n: number;
  /** The firmware that it was found with; null where only the day is known. */
  firmware: string | null;
}

/**
 * What must be tested again since the machine's last firmware: prints that name another, and trials
 * from before the day of the change.
 *
 * @param firmware the machine's today; null where it is not known
 */
export function toTestAgain({ tables }: Pick<Study, 'tables'>, firmware: string | null): Again[] {
  const names = new Map(tables.artefacts.map((row) => [row.artefact_id, row.name]));
  const old = new Map(
    outdatedPrints(tables.prints, firmware).map((one) => [one.print_id, one.firmware]),
  );
  // What was printed again with today's firmware is tested again already.
  const again = new Set(
    tables.prints
      .filter((row) => row.firmware !== null && row.firmware === firmware)
      .map((row) => names.get(row.artefact_id)),
  );
  const prints = groupBy(
    tables.prints.filter((row) => old.has(row.print_id)),
    (row) => names.get(row.artefact_id) ?? row.artefact_id,
  );
  const changes = tables.machine_changes.filter((row) => row.kind === 'firmware');
  const last = Math.max(-Infinity, ...changes.map((row) => instant(row.at)));
  const isBefore = (at: string | null) => at !== null && instant(at) < last;
  const after = new Set(
    tables.trials.filter((row) => row.at !== null && !isBefore(row.at)).map((row) => row.feature),
  );
  const trials = groupBy(
    tables.trials.filter((row) => isBefore(row.at) && !after.has(row.feature)),
    (row) => row.feature,
  );
  return [
    ...[...prints]
      .filter(([name]) => !again.has(name))
      .map(([what, own]): Again => ({
        what,
        kind: 'prints',
        n: own.length,
        firmware: old.get(own[0]?.print_id ?? '') ?? null,
      })),
    ...[...trials].map(([what, own]): Again => ({
      what,
      kind: 'trials',
      n: own.length,
      firmware: null,
    })),
  ];
}
