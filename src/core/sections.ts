import type { Results } from './evaluate';
import type { Accuracy } from './metrology';

/** Accuracy without its cells, which are many and which few pages need. */
export type AccuracySummary = Omit<Accuracy, 'cells'>;

/** The parts into which results are kept, so that a page reads only what it shows. */
export interface Sections {
  accuracy: Record<string, AccuracySummary> | null;
  cells: Record<string, Accuracy['cells']> | null;
  pairs: Results['pairs'];
  speed: Results['speed'];
  reliability: Results['reliability'];
}

export type SectionName = keyof Sections;

export const SECTION_NAMES: readonly SectionName[] = [
  'accuracy',
  'cells',
  'pairs',
  'speed',
  'reliability',
];

/** Splits results into sections, each as JSON text. */
export function sectionsOf(results: Results): Record<SectionName, string> {
  const entries = results.accuracy && Object.entries(results.accuracy);
  const sections: Sections = {
    accuracy:
      entries &&
      Object.fromEntries(
        entries.map(([contender, { cells: _, ...summary }]) => [contender, summary]),
      ),
    cells:
      entries && Object.fromEntries(entries.map(([contender, { cells }]) => [contender, cells])),
    pairs: results.pairs,
    speed: results.speed,
    reliability: results.reliability,
  };
  return Object.fromEntries(
    Object.entries(sections).map(([name, value]) => [name, JSON.stringify(value)]),
  ) as Record<SectionName, string>;
}
