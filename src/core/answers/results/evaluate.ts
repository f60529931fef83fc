import { openContext, type EvaluateOptions } from './context';
import { SECTION_NAMES } from './registry';
import type { Results } from './results';
import type { Study } from '../../model/study';

/**
 * Turns a study into its results, section by section.
 *
 * @throws RangeError where the reference is no contender of the study
 */
export function evaluate(study: Study, options: EvaluateOptions = {}): Results {
  const context = openContext(study, options);
  const { name, title, intent } = study.meta;
  const { reference, alpha, seed } = context;
  const sections = SECTION_NAMES.map((section) => [section, context.resultOf(section)] as const);
  return {
    study: { name, title, intent, reference, alpha, seed },
    ...(Object.fromEntries(sections) as Omit<Results, 'study'>),
  };
}
