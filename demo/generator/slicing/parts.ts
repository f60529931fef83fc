import { TILE_PLACES } from '../tile-places';

/** A region of a slice: a rectangle or a disc, and what is cut out of it. */
export interface Region {
  outer: Shape;
  holes: readonly Shape[];
}

export type Shape =
  | { kind: 'rect'; x: number; y: number; w: number; h: number }
  | { kind: 'disc'; x: number; y: number; r: number };

const rect = (x: number, y: number, w: number, h: number): Shape => ({ kind: 'rect', x, y, w, h });
const disc = (x: number, y: number, r: number): Shape => ({ kind: 'disc', x, y, r });
const solid = (outer: Shape, ...holes: Shape[]): Region => ({ outer, holes });

/** A part of the clip bench as its slices, mm from the middle of the plate. */
export interface Part {
  height: number;
  /** What is there at a height. */
  slice(z: number): readonly Region[];
}

const CLEARANCES = [0.6, 0.5, 0.4, 0.3, 0.25, 0.2, 0.15];

/** Rings one in another, the innermost a core. */
function rings(): Region[] {
  const regions: Region[] = [];
  let inner = 5;
  regions.push(solid(disc(0, 0, inner)));
  for (const gap of CLEARANCES) {
    const hole = inner + gap;
    regions.push(solid(disc(0, 0, hole + 2.4), disc(0, 0, hole)));
    inner = hole + 2.4;
  }
  return regions;
}

export const PARTS: Readonly<Record<string, Part>> = {
  'stair-block': {
    height: 32,
    slice: (z) => {
      const step = Math.min(3, Math.floor(z / 8));
      const holes = [disc(-30, 8, 4), disc(-10, 8, 3), disc(10, 8, 2.5), rect(-34, -12, 8, 8)];
      return [solid(rect(-40 + 20 * step, -15, 80 - 20 * step, 30), ...holes.slice(step))];
    },
  },
  'tile-field': {
    height: 4,
    slice: () => TILE_PLACES.map(([x, y]) => solid(rect(x - 20, y - 20, 40, 40))),
  },
  'spire-pair': {
    height: 50,
    slice: (z) =>
      z < 2
        ? [solid(rect(-25, -7, 50, 14))]
        : [-17.5, 17.5].map((x) => solid(disc(x, 0, 5 - (3.8 * (z - 2)) / 48))),
  },
  'ring-stack': { height: 6, slice: rings },
  'echo-wall': {
    height: 60,
    slice: (z) =>
      z < 3
        ? [solid(rect(-60, -10, 120, 20))]
        : z > 40 && z < 50
          ? [solid(rect(-60, -3, 90, 6)), solid(rect(45, -3, 15, 6))]
          : [solid(rect(-60, -3, 120, 6))],
  },
  lantern: {
    height: 55,
    slice: (z) =>
      z < 3 || z > 50
        ? [solid(rect(-30, -30, 60, 60))]
        : [solid(rect(-30, -30, 60, 8)), solid(rect(-30, 22, 60, 8)), solid(rect(-30, -22, 8, 44))],
  },
};
