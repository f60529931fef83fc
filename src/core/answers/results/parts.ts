import type { Fairness } from '../fairness';
import type { Accuracy } from '../../measures/metrology';
import { groupBy, keysOf } from '../../model/study';
import { SECTION_NAMES } from './registry';
import type { Results, SectionName } from './results';

/** Accuracy without its cells, which are many and which few pages need. */
export type AccuracySummary = Omit<Accuracy, 'cells'>;

/** What specimens deviate in one dimension, mm: lists that belong together place by place. */
export interface Deviations {
  specimens: string[];
  deviations_mm: number[];
}

/** What a fairness check found, without its many items: only what was accepted of them. */
export type FairnessSummary = Omit<Fairness, 'items'> & {
  accepted: { item: string; reason: string; operator: string | null }[];
};

/** The parts in which results are kept, so that a page reads only what it shows. */
export type ResultParts = Omit<Results, 'study' | 'accuracy' | 'fairness'> & {
  accuracy: Record<string, AccuracySummary> | null;
  /** By contender and dimension: what each specimen deviates. */
  deviations: Record<string, Record<string, Deviations>> | null;
  fairness: FairnessSummary[];
  fairness_items: Fairness[];
};

export type PartName = keyof ResultParts;

/** Sections that are kept in more than one part; all others are one of their own name. */
const SPLIT: { readonly [Name in SectionName]?: (value: Results[Name]) => Partial<ResultParts> } = {
  accuracy: (value) => {
    const entries = value && Object.entries(value);
    const perContender = <Found>(of: (own: Accuracy) => Found) =>
      entries && Object.fromEntries(entries.map(([contender, own]) => [contender, of(own)]));
    return {
      accuracy: perContender(({ cells: _, ...summary }) => summary),
      deviations: perContender(({ cells }) => deviationsOf(cells)),
    };
  },
  fairness: (value) => ({
    fairness: value.map(({ items, ...rest }) => ({
      ...rest,
      accepted: items.flatMap(({ key, accepted }) =>
        accepted ? [{ item: key, ...accepted }] : [],
      ),
    })),
    fairness_items: value,
  }),
};

const deviationsOf = (cells: Accuracy['cells']): Record<string, Deviations> =>
  Object.fromEntries(
    [...groupBy(cells, (cell) => cell.dimension_id)].map(([dimension, own]) => [
      dimension,
      {
        specimens: own.map((cell) => cell.specimen_id),
        deviations_mm: own.map((cell) => cell.deviation_mm),
      },
    ]),
  );

const OWN_NAME: Partial<Record<PartName, SectionName>> = {
  deviations: 'accuracy',
  fairness_items: 'fairness',
};

/** The section that a part belongs to. */
export const sectionOfPart = (part: PartName): SectionName =>
  OWN_NAME[part] ?? (part as SectionName);

/** A section's result in the parts in which it is kept. */
export function partsOf<Name extends SectionName>(
  name: Name,
  value: Results[Name],
): Partial<ResultParts> {
  const split = SPLIT[name] as ((value: Results[Name]) => Partial<ResultParts>) | undefined;
  return split ? split(value) : { [name]: value };
}

/** The names of all parts of a section. */
export function partNames(section: SectionName): PartName[] {
  const more = keysOf(OWN_NAME).filter((part) => OWN_NAME[part] === section);
  return [section, ...more];
}

/** The names of all parts of all sections. */
export const PART_NAMES = SECTION_NAMES.flatMap(partNames);
