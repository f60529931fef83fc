/** How a contender's files are sliced: settings, limits and the habit of their comments. */
export interface Recipe {
  contender: string;
  machine: string;
  profile: string;
  habit: 'role-lines' | 'feature-lines';
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
  habit: Recipe['habit'],
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
  ...{ contender, machine, profile, habit, outer, inner, solid, infill, top, travel, first },
  ...{ accel, nozzle_temp_c, flow, optimism },
});

export const RECIPES: readonly Recipe[] = [
  recipe(
    'A-stock',
    'Auklet 23',
    'Auklet, as shipped',
    'role-lines',
    [120, 150, 150, 180, 90, 200, 40],
    [1500, 215, 1, 0.96],
  ),
  recipe(
    'A-tuned',
    'Auklet 23',
    'Auklet, clip bench',
    'role-lines',
    [90, 150, 150, 180, 90, 200, 40],
    [1500, 210, 0.97, 0.98],
  ),
  recipe(
    'B-stock',
    'Gannet X26',
    'Gannet, as shipped',
    'feature-lines',
    [200, 300, 300, 500, 180, 500, 60],
    [12_000, 215, 0.98, 0.99],
  ),
  recipe(
    'B-tuned',
    'Gannet X26',
    'Gannet, clip bench',
    'feature-lines',
    [180, 300, 300, 500, 180, 500, 60],
    [12_000, 215, 0.98, 0.99],
  ),
  recipe(
    'C-stock',
    'Petrel D30',
    'Petrel, as shipped',
    'feature-lines',
    [160, 240, 240, 400, 150, 400, 50],
    [8000, 215, 1, 0.97],
  ),
  recipe(
    'D-stock',
    'Fulmar 42',
    'Fulmar, as shipped',
    'role-lines',
    [110, 160, 160, 300, 90, 200, 40],
    [1000, 215, 1, 0.93],
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
  pattern: 'grid' as 'grid' | 'gyroid',
};

export type PartSettings = typeof PART;

/** What one file has other than all the rest: somebody changed it on the way, and forgot. */
export const CHANGED: Readonly<Record<string, Partial<PartSettings>>> = {
  'A-tuned echo-wall': { walls: 2, pattern: 'gyroid' },
};
