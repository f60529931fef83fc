import { clopperPearson, medianOrNull, type Interval } from '../../statistics/stats';
import { groupBy, type Row, type StudyIndex } from '../../model/study';

/** How a machine answered where a feature was used, or a fault provoked, on purpose. */
export interface Trials {
  trials: number;
  /** It did what was promised. */
  as_promised: number;
  late: number;
  partly: number;
  nothing: number;
  false_alarm: number;
  /** Share as promised, Clopper–Pearson. */
  share: Interval;
  /** Median delay of those that it reacted to, s; null where none is known. */
  delay_s: number | null;
}

type Outcome = Row<'trials'>['outcome'];

const REACTED: readonly Outcome[] = ['as-promised', 'late', 'partly'];

/** The trials of every machine, by feature. */
export function trialsOfAll(
  { study }: StudyIndex,
  alpha: number,
): Record<string, Record<string, Trials>> {
  const { machines, trials } = study.tables;
  const ofMachine = groupBy(trials, (row) => row.machine_id);
  return Object.fromEntries(
    machines.map(({ machine_id }) => [
      machine_id,
      Object.fromEntries(
        [...groupBy(ofMachine.get(machine_id) ?? [], (row) => row.feature)]
          .sort(([a], [b]) => (a < b ? -1 : 1))
          .map(([feature, own]) => [feature, tally(own, alpha)]),
      ),
    ]),
  );
}

function tally(own: readonly Row<'trials'>[], alpha: number): Trials {
  const count = (outcome: Outcome) => own.filter((row) => row.outcome === outcome).length;
  const as_promised = count('as-promised');
  return {
    trials: own.length,
    as_promised,
    late: count('late'),
    partly: count('partly'),
    nothing: count('nothing'),
    false_alarm: count('false-alarm'),
    share: clopperPearson(as_promised, own.length, alpha),
    delay_s: medianOrNull(
      own.filter((row) => REACTED.includes(row.outcome)).flatMap((row) => row.delay_s ?? []),
    ),
  };
}
