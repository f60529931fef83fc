import { groupBy, type Row, type Specimen, type StudyIndex } from '../../model/study';

type StepResult = Row<'ladder_results'>['result'];

/** How the specimens did at one step. */
export interface LadderStep {
  /** Number of the step, from easy to hard. */
  step: number;
  /** What the step is, in the ladder’s unit. */
  value: number;
  /** Specimens that passed it clear. */
  clear: number;
  /** That passed it with effort. */
  effort: number;
  /** That did not pass it. */
  fail: number;
  /** That broke on it. */
  broken: number;
  /** That were not tried on it. */
  untested: number;
}

/** How far a contender gets on a ladder. */
export interface LadderLimit {
  /** Value of the hardest step that at least half pass clear, as they do every easier one. */
  limit: number | null;
  /** The same where passing with effort counts. */
  limit_with_effort: number | null;
  /** Unit of the steps’ values. */
  unit: string;
  /** Specimens that were tried. */
  specimens: number;
  /** How each step went. */
  by_step: LadderStep[];
  /** What is not known, in words. */
  notes: string[];
}

/** Whether the harder steps of a ladder are those of the larger values: overhangs, and not clearances. */
export function isHarderMore(steps: readonly { step: number; value: number }[]): boolean {
  const ordered = [...steps].sort((a, b) => a.step - b.step);
  return (ordered.at(-1)?.value ?? 0) > (ordered[0]?.value ?? 0);
}

/** Every contender on every ladder of the artefacts that it has specimens of. */
export function laddersOfAll(index: StudyIndex): Record<string, Record<string, LadderLimit>> {
  const { contenders, ladders, ladder_results } = index.study.tables;
  const results = groupBy(ladder_results, (row) => row.specimen_id);
  return Object.fromEntries(
    contenders.map(({ contender_id }) => {
      const prints = index.printsOfContender.get(contender_id) ?? [];
      const own = ladders.flatMap((ladder) => {
        const specimens = prints
          .filter((print) => print.artefact_id === ladder.artefact_id)
          .flatMap((print) => index.specimensOfPrint.get(print.print_id) ?? []);
        if (specimens.length === 0) return [];
        const limit = limitOf(index, ladder, specimens, results);
        return [[`${ladder.artefact_id}/${ladder.ladder_id}`, limit] as const];
      });
      return [contender_id, Object.fromEntries(own)];
    }),
  );
}

function limitOf(
  index: StudyIndex,
  ladder: Row<'ladders'>,
  specimens: readonly Specimen[],
  results: ReadonlyMap<string, readonly Row<'ladder_results'>[]>,
): LadderLimit {
  const steps = index.study.tables.ladder_steps
    .filter((row) => row.artefact_id === ladder.artefact_id && row.ladder_id === ladder.ladder_id)
    .sort((a, b) => a.step - b.step);
  const tested = specimens
    .map((row) =>
      (results.get(row.specimen_id) ?? []).filter(
        (result) => result.ladder_id === ladder.ladder_id,
      ),
    )
    .filter((rows) => rows.length > 0);
  const by_step = steps.map(({ step, value }): LadderStep => {
    const count = (result: StepResult) =>
      tested.filter((rows) => rows.some((row) => row.step === step && row.result === result))
        .length;
    const [clear, effort, fail, broken] = [
      count('clear'),
      count('effort'),
      count('fail'),
      count('broken'),
    ];
    const untested = tested.length - clear - effort - fail - broken;
    return { step, value, clear, effort, fail, broken, untested };
  });
  const limit = hardestPassed(by_step, (step) => step.clear);
  return {
    limit,
    limit_with_effort: hardestPassed(by_step, (step) => step.clear + step.effort),
    unit: ladder.unit,
    specimens: tested.length,
    by_step,
    notes:
      tested.length === 0
        ? ['nothing was tested']
        : limit === null
          ? ['the easiest step that was tested is not passed clear']
          : [],
  };
}

function hardestPassed(
  steps: readonly LadderStep[],
  passed: (step: LadderStep) => number,
): number | null {
  let limit: number | null = null;
  for (const step of steps) {
    const tested = step.clear + step.effort + step.fail + step.broken;
    if (tested === 0) continue;
    if (passed(step) / tested < 0.5 - 1e-9) break;
    limit = step.value;
  }
  return limit;
}
