import type { StudyIndex } from '../../model/study';

/** How often a part did its job. */
export interface FunctionTally {
  works: number;
  works_with_effort: number;
  fails: number;
}

/** Function checks of every contender, by `artefact/check`. */
export function functionsOfAll(index: StudyIndex): Record<string, Record<string, FunctionTally>> {
  const { contenders, function_results } = index.study.tables;
  const all: Record<string, Record<string, FunctionTally>> = Object.fromEntries(
    contenders.map(({ contender_id }) => [contender_id, {}]),
  );
  for (const row of function_results) {
    const specimen = index.specimens.get(row.specimen_id);
    const print = specimen && index.prints.get(specimen.print_id);
    const own = print && all[print.contender_id];
    if (!own) continue;
    const tally = (own[`${print.artefact_id}/${row.check}`] ??= {
      works: 0,
      works_with_effort: 0,
      fails: 0,
    });
    if (row.result === 'works') tally.works += 1;
    else if (row.result === 'works-with-effort') tally.works_with_effort += 1;
    else tally.fails += 1;
  }
  return all;
}
