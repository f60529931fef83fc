import {
  differencesOfPair,
  evidenceOf,
  openContext,
  partsOf,
  type EvaluateOutcome,
  type EvaluateTask,
} from '../core/answers/results';
import { standingsOf } from '../core/answers/standings';
import { openSentStudy } from '../core/model/study';

/** Worker thread: computes sections of a study's results, what a figure is made of, a pair, or standings. */
export default function run(task: EvaluateTask): EvaluateOutcome {
  if ('standings' in task) return { standings: standingsOf(task.standings) };
  const context = openContext(openSentStudy(task.study), task.options);
  if ('figure' in task) return { evidence: evidenceOf(context, task.figure) };
  if ('pair' in task) {
    const { contender, other, reference } = task.pair;
    return { differences: differencesOfPair(context, contender, other, reference) };
  }
  const parts = task.sections.flatMap((name) =>
    Object.entries(partsOf(name, context.resultOf(name))).map(
      ([part, value]) => [part, JSON.stringify(value)] as const,
    ),
  );
  return { parts: Object.fromEntries(parts) };
}
