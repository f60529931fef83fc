import { median, sum } from '../../statistics/stats';
import { isAtLeast, isAtMost, groupBy, type Row, type StudyIndex } from '../../model/study';

/** What it took until a machine's first print, and how it was found. */
export interface Setup {
  /** Minutes over the steps; null where none is known. */
  minutes: number | null;
  /** Minutes of hands over the steps; null where none is known. */
  hands_min: number | null;
  steps: number;
  /** Steps that went wrong so that it was felt: snag of grade 2 or more. */
  snags: number;
  /** Values found at the machine: inside their limits, outside, or null where that cannot be said. */
  checks: { check_id: string; state: CheckState }[];
  /** Median seconds to heat something from one temperature to another. */
  heat_up: { what: string; from_c: number; to_c: number; n: number; seconds: number }[];
  /** What is not known, in words. */
  notes: string[];
}

export type CheckState = 'inside' | 'outside' | null;

/** From this grade on a snag counts. */
const FELT = 2;

/** The set-up of every machine. */
export function setupOfAll({ study }: StudyIndex): Record<string, Setup> {
  const { machines, setup_steps, checks, heat_ups } = study.tables;
  const stepsOf = groupBy(setup_steps, (row) => row.machine_id);
  const checksOf = groupBy(checks, (row) => row.machine_id);
  const heatsOf = groupBy(heat_ups, (row) => row.machine_id);
  return Object.fromEntries(
    machines.map(({ machine_id }) => [
      machine_id,
      {
        ...logOf(stepsOf.get(machine_id) ?? []),
        checks: (checksOf.get(machine_id) ?? [])
          .map((row) => ({ check_id: row.check_id, state: stateOf(row) }))
          .sort((a, b) => (a.check_id < b.check_id ? -1 : 1)),
        heat_up: heatUpsOf(heatsOf.get(machine_id) ?? []),
      },
    ]),
  );
}

function logOf(steps: readonly Row<'setup_steps'>[]) {
  const known = (column: 'minutes' | 'hands_s') => steps.flatMap((row) => row[column] ?? []);
  const [minutes, hands] = [known('minutes'), known('hands_s')];
  const left = (count: number, what: string) =>
    count > 0 && count < steps.length
      ? [`${what} of steps not known: ${steps.length - count}`]
      : [];
  return {
    minutes: minutes.length === 0 ? null : sum(minutes),
    hands_min: hands.length === 0 ? null : sum(hands) / 60,
    steps: steps.length,
    snags: steps.filter((row) => (row.snag ?? 0) >= FELT).length,
    notes: [
      ...(steps.length === 0 ? ['no step of the set-up was written down'] : []),
      ...left(minutes.length, 'minutes'),
      ...left(hands.length, 'hands'),
    ],
  };
}

/** Where a value stands to its limits, which are inclusive; comparisons allow 1e-9. */
export function stateOf({
  value,
  lower,
  upper,
}: Pick<Row<'checks'>, 'value' | 'lower' | 'upper'>): CheckState {
  if (value === null || (lower === null && upper === null)) return null;
  const isLow = lower !== null && !isAtLeast(value, lower);
  const isHigh = upper !== null && !isAtMost(value, upper);
  return isLow || isHigh ? 'outside' : 'inside';
}

function heatUpsOf(rows: readonly Row<'heat_ups'>[]): Setup['heat_up'] {
  const groups = groupBy(rows, (row) => JSON.stringify([row.what, row.from_c, row.to_c]));
  return [...groups.values()]
    .flatMap((own) => {
      const [first] = own;
      if (!first) return [];
      const { what, from_c, to_c } = first;
      const seconds = median(own.map((row) => row.seconds));
      return [{ what, from_c, to_c, n: own.length, seconds }];
    })
    .sort((a, b) =>
      a.what === b.what ? a.from_c - b.from_c || a.to_c - b.to_c : a.what < b.what ? -1 : 1,
    );
}
