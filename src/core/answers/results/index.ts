export { DEFAULT_ALPHA, DEFAULT_SEED, openContext, type EvaluateOptions } from './context';
export { differencesOf, differencesOfPair } from './sections/differences';
export { evaluate } from './evaluate';
export { evidenceOf } from './figures';
export { figureAt, type FoundFigure, type ReportedResults } from './figure-at';
export {
  PART_NAMES,
  partNames,
  partsOf,
  sectionOfPart,
  type AccuracySummary,
  type FairnessSummary,
  type PartName,
  type ResultParts,
} from './parts';
export { hangsOnReference, needsOf, SECTION_NAMES, sectionOfFigure, usesOf } from './registry';
export type { Results, SectionName } from './results';
export type { StudyPart } from './section';
export type { EvaluateOutcome, EvaluateTask } from './task';
