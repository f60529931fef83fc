import { parameter, reader, type PartDesign } from './part';
import { cylinder, difference, union, type Solid } from './solid';

const CLEARANCES = [0.6, 0.5, 0.4, 0.3, 0.25, 0.2, 0.15];
const CORE_RADIUS = 5;

/** Rings printed one in another, tighter and tighter outwards. */
export const ringStack: PartDesign = {
  key: 'ring-stack',
  name: 'Ring stack',
  about:
    'Rings printed one in another, clearances ' +
    `${CLEARANCES.map((gap) => gap.toFixed(2)).join(', ')} mm from the core outwards: which of ` +
    'them turn.',
  parameters: [
    parameter('height', 'height', 6, 3, 20, 0.5),
    parameter('wall', 'wall of a ring', 2.4, 1.2, 6, 0.2),
    parameter('rings', 'rings', 7, 3, 7, 1, ''),
  ],
  faults: () => [],
  make: (values) => {
    const of = reader(values);
    const [height, wall] = [of('height'), of('wall')];
    const gaps = CLEARANCES.slice(0, of('rings'));
    const solids: Solid[] = [cylinder(0, 0, 0, CORE_RADIUS, height)];
    const steps: { value: number; at: readonly [number, number, number] }[] = [];
    let inner = CORE_RADIUS;
    for (const gap of gaps) {
      const hole = inner + gap;
      solids.push(
        difference(cylinder(0, 0, 0, hole + wall, height), cylinder(0, 0, -1, hole, height + 2)),
      );
      steps.push({ value: gap, at: [hole + wall / 2, 0, height] });
      inner = hole + wall;
    }
    return {
      solid: union(...solids),
      dimensions: [],
      ladders: [
        { id: 'clearance', name: 'Rings that turn', quantity: 'clearance', unit: 'mm', steps },
      ],
      zones: [],
      checks: ['turns'],
      copies: [],
    };
  },
};
