import type { Evidence } from '../evidence';
import type { Study } from '../study';
import type { EvaluateOptions } from './context';
import type { PartName } from './parts';
import type { SectionName } from './results';
import type { Differences } from './sections/differences';

/**
 * What a thread computes of a study: some sections of its results, what a figure is made of, or one
 * contender against one other.
 */
export type EvaluateTask = { study: Study; options: EvaluateOptions } & (
  | { sections: readonly SectionName[] }
  | { figure: string }
  | { pair: { contender: string; other: string } }
);

/** The sections in the parts in which they are kept, each as JSON text; a figure's evidence; a pair. */
export type EvaluateOutcome =
  | { parts: Partial<Record<PartName, string>> }
  | { evidence: Evidence | null }
  | { differences: Differences };
