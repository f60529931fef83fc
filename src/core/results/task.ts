import type { Evidence } from '../evidence';
import type { Study } from '../study';
import type { EvaluateOptions } from './context';
import type { PartName } from './parts';
import type { SectionName } from './results';

/** What a thread computes of a study: some sections of its results, or what a figure is made of. */
export type EvaluateTask = { study: Study; options: EvaluateOptions } & (
  { sections: readonly SectionName[] } | { figure: string }
);

/** The sections in the parts in which they are kept, each as JSON text; or a figure's evidence. */
export type EvaluateOutcome =
  { parts: Partial<Record<PartName, string>> } | { evidence: Evidence | null };
