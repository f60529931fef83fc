import type { Results } from './evaluate';
import type { Fairness } from './fairness';
import type { Accuracy } from './metrology';

/** Accuracy without its cells, which are many and which few pages need. */
export type AccuracySummary = Omit<Accuracy, 'cells'>;

/** What a fairness check found, without its many items: only what was accepted of them. */
export type FairnessSummary = Omit<Fairness, 'items'> & {
  accepted: { item: string; reason: string; operator: string | null }[];
};

/** The parts into which results are kept, so that a page reads only what it shows. */
export interface Sections {
  accuracy: Record<string, AccuracySummary> | null;
  cells: Record<string, Accuracy['cells']> | null;
  pairs: Results['pairs'];
  speed: Results['speed'];
  reliability: Results['reliability'];
  modes: Results['modes'];
  survival: Results['survival'];
  waste: Results['waste'];
  cost: Results['cost'];
  noise: Results['noise'];
  fairness: FairnessSummary[];
  fairness_items: Fairness[];
  scatter: Results['scatter'];
  plate: Results['plate'];
  squareness: Results['squareness'];
  ladders: Results['ladders'];
  functions: Results['functions'];
  gauge: Results['gauge'];
  drivers: Results['drivers'];
  by_place: Results['by_place'];
  instruments: Results['instruments'];
}

export type SectionName = keyof Sections;

export const SECTION_NAMES: readonly SectionName[] = [
  'accuracy',
  'cells',
  'pairs',
  'speed',
  'reliability',
  'modes',
  'survival',
  'waste',
  'cost',
  'noise',
  'fairness',
  'fairness_items',
  'scatter',
  'plate',
  'squareness',
  'ladders',
  'functions',
  'gauge',
  'drivers',
  'by_place',
  'instruments',
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
    modes: results.modes,
    survival: results.survival,
    waste: results.waste,
    cost: results.cost,
    noise: results.noise,
    fairness: results.fairness.map(({ items, ...rest }) => ({
      ...rest,
      accepted: items.flatMap(({ key, accepted }) =>
        accepted ? [{ item: key, ...accepted }] : [],
      ),
    })),
    fairness_items: results.fairness,
    scatter: results.scatter,
    plate: results.plate,
    squareness: results.squareness,
    ladders: results.ladders,
    functions: results.functions,
    gauge: results.gauge,
    drivers: results.drivers,
    by_place: results.by_place,
    instruments: results.instruments,
  };
  return Object.fromEntries(
    Object.entries(sections).map(([name, value]) => [name, JSON.stringify(value)]),
  ) as Record<SectionName, string>;
}
