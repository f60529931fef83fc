import { parameter, reader, type PartDesign } from './part';
import { box, difference, union, type Solid } from './solid';

const BASE = 3;
const WALL = 5;
const OVERHANGS = [30, 40, 50, 60, 70, 80];
const BRIDGES = [10, 20, 30, 40, 50, 60];
const FIN = { reach: 12, thickness: 1.6, width: 8, pitch: 11 };
const WINDOW = { height: 5, lintel: 3, first: 5 };

/** A leaning fin as an outline in x and z, turned so that it stands out of the back wall. */
function fin(degrees: number, x: number, y: number, z: number): Solid {
  const angle = (degrees * Math.PI) / 180;
  const [out, up] = [FIN.reach * Math.sin(angle), FIN.reach * Math.cos(angle)];
  const thick = FIN.thickness / Math.max(0.3, Math.sin(angle));
  return {
    shape: 'turned',
    degrees: 90,
    at: [x + FIN.width / 2, y, z],
    solid: {
      shape: 'profile',
      at: [0, -FIN.width / 2, 0],
      depth: FIN.width,
      outline: [
        [-0.5, 0],
        [0, 0],
        [out, up],
        [out, up + thick],
        [0, thick],
        [-0.5, thick],
      ],
    },
  };
}

/** Two walls on a base: overhanging fins on one, windows of growing width in the other. */
export const lantern: PartDesign = {
  key: 'lantern',
  name: 'Lantern',
  about:
    `Overhangs of ${OVERHANGS[0]}–${OVERHANGS.at(-1)}° from the upright and bridges of ` +
    `${BRIDGES[0]}–${BRIDGES.at(-1)} mm on one base.`,
  parameters: [
    parameter('depth', 'depth', 60, 40, 120),
    parameter('side', 'wall beside the widest window', 8, 4, 20),
  ],
  faults: () => [],
  make: (values) => {
    const of = reader(values);
    const [depth, side] = [of('depth'), of('side')];
    const width = (BRIDGES.at(-1) ?? 0) + 2 * side;
    const height = BASE + WINDOW.first + BRIDGES.length * (WINDOW.height + WINDOW.lintel);
    const [left, front, back] = [-width / 2, -depth / 2, depth / 2 - WALL];
    const windowZ = (at: number) => BASE + WINDOW.first + at * (WINDOW.height + WINDOW.lintel);
    const finX = (at: number) => -(OVERHANGS.length * FIN.pitch) / 2 + at * FIN.pitch + 1.5;
    const finZ = height - 25;
    return {
      solid: union(
        box(left, front, 0, width, depth, BASE),
        difference(
          box(left, front, 0, width, WALL, height),
          ...BRIDGES.map((span, at) =>
            box(-span / 2, front - 1, windowZ(at), span, WALL + 2, WINDOW.height),
          ),
        ),
        box(left, back, 0, width, WALL, height),
        ...OVERHANGS.map((angle, at) => fin(angle, finX(at), back + WALL, finZ)),
      ),
      dimensions: [],
      ladders: [
        {
          id: 'overhang',
          name: 'Overhangs',
          quantity: 'overhang',
          unit: '°',
          steps: OVERHANGS.map((value, at) => ({
            value,
            at: [finX(at) + FIN.width / 2, back + WALL + 6, finZ] as const,
          })),
        },
        {
          id: 'bridge',
          name: 'Bridges',
          quantity: 'bridge',
          unit: 'mm',
          steps: BRIDGES.map((value, at) => ({
            value,
            at: [0, front, windowZ(at) + WINDOW.height] as const,
          })),
        },
      ],
      zones: [],
      checks: [],
      copies: [],
    };
  },
};
