import { evaluate, type EvaluateOptions } from '../core/evaluate';
import { sectionsOf } from '../core/sections';
import type { Study } from '../core/study';

/** Worker thread: evaluates a study and gives each section as JSON text. */
export default function run(task: {
  study: Study;
  options: EvaluateOptions;
}): Record<string, string> {
  return sectionsOf(evaluate(task.study, task.options));
}
