import { parameter, reader, type PartDesign } from './part';
import { box, union, type Solid } from './solid';

const FOOT = 2;

/** Two slim cones on a foot: what is drawn between them when the head travels. */
export const spirePair: PartDesign = {
  key: 'spire-pair',
  name: 'Spire pair',
  about: 'Two slim cones on a foot: strings between them, and how fine a tip can be.',
  parameters: [
    parameter('apart', 'from tip to tip', 35, 15, 150),
    parameter('height', 'height', 50, 20, 200),
    parameter('radius', 'radius at the foot', 5, 2, 15, 0.5),
    parameter('tip', 'radius at the tip', 1.2, 0.4, 5, 0.1),
  ],
  faults: (values) => {
    const of = reader(values);
    return [
      ...(of('apart') < 2 * of('radius') + 4 ? ['the cones touch: further apart or slimmer'] : []),
      ...(of('tip') > of('radius') ? ['the tip is wider than the foot'] : []),
    ];
  },
  make: (values) => {
    const of = reader(values);
    const [apart, height, radius, tip] = [of('apart'), of('height'), of('radius'), of('tip')];
    const spire = (x: number): Solid => ({
      shape: 'cone',
      at: [x, 0, FOOT - 0.5],
      height: height - FOOT + 0.5,
      bottom: radius,
      top: tip,
    });
    const [width, depth] = [apart + 2 * radius + 5, 2 * radius + 4];
    return {
      solid: union(
        box(-width / 2, -depth / 2, 0, width, depth, FOOT),
        spire(-apart / 2),
        spire(apart / 2),
      ),
      dimensions: [],
      ladders: [],
      zones: [
        {
          id: 'between',
          name: 'between the spires',
          weight: 2,
          view: 'front',
          from: [-apart / 2 + radius, FOOT],
          to: [apart / 2 - radius, height],
        },
        {
          id: 'tips',
          name: 'tips',
          weight: 1,
          view: 'front',
          from: [-apart / 2 - 4, height - 8],
          to: [apart / 2 + 4, height],
        },
      ],
      checks: [],
      copies: [],
    };
  },
};
