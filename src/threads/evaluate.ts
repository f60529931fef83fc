import {
  differencesOf,
  evidenceOf,
  openContext,
  partsOf,
  type EvaluateOutcome,
  type EvaluateTask,
} from '../core/results';

/** Worker thread: computes sections of a study's results, what a figure is made of, or a pair. */
export default function run(task: EvaluateTask): EvaluateOutcome {
  const context = openContext(task.study, task.options);
  if ('figure' in task) return { evidence: evidenceOf(context, task.figure) };
  if ('pair' in task) {
    const { contender, other } = task.pair;
    return { differences: differencesOf(context, [contender], other) };
  }
  const parts = task.sections.flatMap((name) =>
    Object.entries(partsOf(name, context.resultOf(name))).map(
      ([part, value]) => [part, JSON.stringify(value)] as const,
    ),
  );
  return { parts: Object.fromEntries(parts) };
}
