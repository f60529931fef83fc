import type { Row } from '../../model/study';

type Made = Pick<Row<'prints'>, 'contender_id' | 'artefact_id' | 'filament_g' | 'outcome'>;

/**
 * What a print is expected to take, g: the mean of its like so far, of those that were printed to the
 * end; else by its sliced file.
 *
 * @param byFile mass by the path of a sliced file, g
 */
export function expectedMass(
  prints: readonly Made[],
  planned: readonly Row<'planned'>[],
  byFile: ReadonlyMap<string, number | null>,
): (contender: string, artefact: string) => number | null {
  const sums = new Map<string, { total: number; count: number }>();
  for (const print of prints) {
    if (print.filament_g === null || print.outcome === 'failed' || print.outcome === 'aborted') {
      continue;
    }
    const key = `${print.contender_id} ${print.artefact_id}`;
    const sum = sums.get(key) ?? { total: 0, count: 0 };
    sums.set(key, { total: sum.total + print.filament_g, count: sum.count + 1 });
  }
  return (contender, artefact) => {
    const sum = sums.get(`${contender} ${artefact}`);
    if (sum) return sum.total / sum.count;
    const plan = planned.find(
      (row) => row.contender_id === contender && row.artefact_id === artefact,
    );
    return byFile.get(plan?.toolpath ?? '') ?? null;
  };
}
