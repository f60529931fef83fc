import { meanOrNull } from '../../statistics/stats';
import { groupBy, type StudyIndex } from '../../model/study';

/** What hands and eyes gave a machine for an aspect. */
export interface Mark {
  /** How many values were given. */
  n: number;
  /** Their mean, 0–10; null where none was given. */
  value: number | null;
  notes: string[];
}

/** The marks of every machine, by aspect. */
export function marksOfAll({ study }: StudyIndex): Record<string, Record<string, Mark>> {
  const { machines, marks } = study.tables;
  const ofMachine = groupBy(marks, (row) => row.machine_id);
  return Object.fromEntries(
    machines.map(({ machine_id }) => [
      machine_id,
      Object.fromEntries(
        [...groupBy(ofMachine.get(machine_id) ?? [], (row) => row.aspect)]
          .sort(([a], [b]) => (a < b ? -1 : 1))
          .map(([aspect, own]): [string, Mark] => {
            const values = own.flatMap((row) => row.value ?? []);
            const value = meanOrNull(values);
            return [
              aspect,
              { n: values.length, value, notes: value === null ? ['words, without a mark'] : [] },
            ];
          }),
      ),
    ]),
  );
}
