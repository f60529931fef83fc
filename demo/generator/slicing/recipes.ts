/** The two slicing programs of the demo. */
export type Program = 'lathe' | 'strake';

/** How a contender's files are sliced: settings, limits and the program. */
export interface Recipe {
  contender: string;
  machine: string;
  profile: string;
  /** The slicing program that wrote it: each has words of its own. */
  program: Program;
  /** Speeds, mm/s. */
  outer: number;
  inner: number;
  solid: number;
  infill: number;
  top: number;
  travel: number;
  first: number;
  /** Acceleration that the file sets, mm/s². */
  accel: number;
  nozzle_temp_c: number;
  flow: number;
  /** What the file says it takes over what the motion model says. */
  optimism: number;
}

const recipe = (
  contender: string,
  machine: string,
  profile: string,
  program: Program,
  [outer, inner, solid, infill, top, travel, first]: readonly [
    number,
    number,
    number,
    number,
    number,
    number,
    number,
  ],
  [accel, nozzle_temp_c, flow, optimism]: readonly [number, number, number, number],
): Recipe => ({
  contender,
  machine,
  profile,
  program,
  outer,
  inner,
  solid,
  infill,
  top,
  travel,
  first,
  accel,
  nozzle_temp_c,
  flow,
  optimism,
});

export const RECIPES: readonly Recipe[] = [
  recipe(
    'A-stock',
    'Auklet 19',
    'Auklet, as shipped',
    'lathe',
    [95, 125, 125, 145, 80, 155, 35],
    [1300, 215, 1, 0.96],
  ),
  recipe(
    'A-tuned',
    'Auklet 19',
    'Auklet, clip bench',
    'lathe',
    [75, 125, 125, 145, 80, 155, 35],
    [1300, 210, 0.97, 0.98],
  ),
  recipe(
    'B-stock',
    'Gannet X24',
    'Gannet, as shipped',
    'strake',
    [200, 290, 290, 430, 170, 430, 55],
    [13_500, 215, 0.98, 0.99],
  ),
  recipe(
    'B-tuned',
    'Gannet X24',
    'Gannet, clip bench',
    'strake',
    [180, 290, 290, 430, 170, 430, 55],
    [13_500, 215, 0.98, 0.99],
  ),
  recipe(
    'C-stock',
    'Petrel G27',
    'Petrel, as shipped',
    'strake',
    [145, 220, 220, 330, 135, 330, 45],
    [7000, 215, 1, 0.97],
  ),
  recipe(
    'D-stock',
    'Fulmar 38',
    'Fulmar, as shipped',
    'lathe',
    [105, 150, 150, 195, 85, 195, 35],
    [400, 215, 1, 0.93],
  ),
];

/** What makes the part, the same for everybody: else the comparison would not be fair. */
export const PART = {
  layer: 0.2,
  firstLayer: 0.24,
  width: 0.45,
  walls: 3,
  top: 5,
  bottom: 4,
  infill: 0.15,
  pattern: 'grid',
};

export type PartSettings = typeof PART;

/** What one file has other than all the rest: somebody opened it in the other program, and forgot. */
export const CHANGED: Readonly<Record<string, Partial<PartSettings> & { program: Program }>> = {
  'A-tuned echo-wall': { program: 'strake', top: 6 },
};
