import { meanOf } from '../../statistics/stats';
import { groupBy, type StudyIndex } from '../../model/study';

/** Sound levels of every machine in each state, at 1 m; of several distances the energy mean. */
export function noiseOfAll(
  index: StudyIndex,
): Record<string, Record<string, { at_1m_db: number }>> {
  return Object.fromEntries(
    [...groupBy(index.study.tables.noise, (row) => row.machine_id)].map(([machine, rows]) => [
      machine,
      Object.fromEntries(
        [...groupBy(rows, (row) => row.state)].map(([state, levels]) => {
          const at1m = levels.map((row) => row.db_a + 20 * Math.log10(row.distance_m));
          return [state, { at_1m_db: 10 * Math.log10(meanOf(at1m, (db) => 10 ** (db / 10))) }];
        }),
      ),
    ]),
  );
}
