import type { Evidence } from '../evidence';
import type { FigureAddress } from '../figure-address';
import type { Measurements } from '../../measures/metrology';
import type { StudyIndex, StudyMeta, TableName } from '../../model/study';
import type { ToolpathFacts } from '../../toolpath';
import type { Results, SectionName } from './results';

/**
 * What a section can hang on: a table, the study's record, its scorecards, what its sliced files state
 * and hold. How its report is made is a part too, on which no section hangs.
 */
export type StudyPart = TableName | 'studies' | 'cards' | 'sliced_files' | 'report';

/** What the sections are computed from. Whatever several of them use is computed once. */
export interface SectionContext {
  index: StudyIndex;
  /** The contender that the others are compared with. */
  reference: string | null;
  alpha: number;
  seed: number;
  /** The scorecard that is filled in; null where the study has none. */
  card: StudyMeta['scorecard'];
  /** What was read in sliced files, by their path; null where nobody has read any. */
  toolpaths: ReadonlyMap<string, ToolpathFacts> | null;
  /** The cells of all specimens; null where the study has no readings. */
  measurements: () => Measurements | null;
  /** Another section's result. */
  resultOf: <Name extends SectionName>(name: Name) => Results[Name];
  /** Whether the study has a table. */
  has: (table: TableName) => boolean;
}

/** A figure that is asked for, and whose it is. */
export interface AskedFigure extends FigureAddress {
  contender: string;
}

/** Finds what a figure of a contender was computed from; null where there is no such figure. */
export type FindEvidence = (context: SectionContext, asked: AskedFigure) => Evidence | null;

/** One section of the results. */
export interface Section<Name extends SectionName = SectionName> {
  name: Name;
  /** The parts of a study that its result hangs on; a change of any other leaves it as it is. */
  needs: readonly StudyPart[];
  /** Other sections that it is computed from: it hangs on what they hang on. */
  uses?: readonly SectionName[];
  /** Whether it is another one for another reference. */
  usesReference: boolean;
  compute(context: SectionContext): Results[Name];
  /** What its figures were computed from. */
  evidence?: FindEvidence;
}

/** Who competes. */
export const LINE_UP = ['studies', 'machines', 'profiles', 'contenders', 'artefacts'] as const;
/** What was printed, in what, and the parts of it. */
export const PRINTED = [...LINE_UP, 'prints', 'specimens', 'materials', 'print_materials'] as const;
/** What was read on the parts. */
export const MEASURED = [
  ...PRINTED,
  'dimensions',
  'retired_dimensions',
  'instruments',
  'readings',
] as const;

/** The contenders of a study, in its order. */
export const contenderIds = ({ study }: StudyIndex): string[] =>
  study.tables.contenders.map((row) => row.contender_id);

/** Something of every contender but the reference, compared with it. */
export function againstReference<Found>(
  { index, reference }: Pick<SectionContext, 'index' | 'reference'>,
  find: (contender: string, reference: string) => Found,
): Record<string, Found> {
  if (reference === null) return {};
  const others = contenderIds(index).filter((id) => id !== reference);
  return Object.fromEntries(others.map((id) => [id, find(id, reference)]));
}
