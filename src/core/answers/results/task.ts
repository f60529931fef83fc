import type { Evidence } from '../evidence';
import type { ArtefactStandings, StandingStudy } from '../standings';
import type { SentStudy } from '../../model/study';
import type { EvaluateOptions } from './context';
import type { PartName } from './parts';
import type { SectionName } from './results';
import type { Differences } from './sections/differences';

/**
 * What a thread computes of a study: some sections of its results, what a figure is made of, or one
 * contender against one other; and of several studies the standings.
 */
export type EvaluateTask =
  | ({ study: SentStudy; options: EvaluateOptions } & (
      | { sections: readonly SectionName[] }
      | { figure: string }
      | { pair: { contender: string; other: string; reference: string | null } }
    ))
  | { standings: readonly StandingStudy[] };

/** The sections in the parts in which they are kept, each as JSON text; a figure's evidence; a pair; standings. */
export type EvaluateOutcome =
  | { parts: Partial<Record<PartName, string>> }
  | { evidence: Evidence | null }
  | { differences: Differences }
  | { standings: ArtefactStandings[] };
