import { parameter, reader, sized, type PartDesign, type PartDimension } from './part';
import { box, cylinder, difference, union } from './solid';

/** Clear of edges, mm. */
const RIM = 3;
const SHELF_SHARE = 0.6;
const BOSS_HEIGHT = 6;

const toHalfs = (value: number): number => Math.round(2 * value) / 2;

/** Holes, slot and bosses from the largest hole, to half a millimetre. */
const sizesOf = (hole: number) => ({
  holes: [hole, toHalfs(0.75 * hole), toHalfs(0.625 * hole)],
  slot: hole,
  bosses: [toHalfs(1.25 * hole), toHalfs(0.75 * hole)] as const,
});

/** Steps up along x: lengths, heights, holes and bosses on one block. */
export const stairBlock: PartDesign = {
  key: 'stair-block',
  name: 'Stair block',
  about: 'Steps up along x, with round holes, a square slot and bosses: lengths, heights, holes.',
  parameters: [
    parameter('length', 'length', 80, 60, 200),
    parameter('width', 'width', 30, 24, 80),
    parameter('height', 'height', 32, 16, 100),
    parameter('steps', 'steps', 4, 4, 8, 1, ''),
    parameter('hole', 'largest hole', 8, 4, 12, 0.5),
  ],
  faults: (values) => {
    const of = reader(values);
    const tread = of('length') / of('steps');
    const wanted = sizesOf(of('hole')).bosses[0] + 2 * RIM;
    const faults: string[] = [];
    if (tread < wanted) {
      faults.push(
        `a step is ${sized(tread)} mm long and needs ${sized(wanted)} mm for its hole or boss: ` +
          'fewer steps, a longer block or smaller holes',
      );
    }
    const across = of('hole') + sizesOf(of('hole')).bosses[0] + 3 * RIM;
    if (of('width') < across) {
      faults.push(
        `hole and slot need a width of ${sized(across)} mm: a wider block or smaller holes`,
      );
    }
    if (of('height') / of('steps') < 3) faults.push('a step is less than 3 mm high: fewer steps');
    return faults;
  },
  make: (values) => {
    const block = blockOf(values);
    const { length, width, height, steps, tread, rise, left, front, shelf } = block;
    const { holes, slot, bosses, holeY, bossY, slotX, slotY, middleOf, topOf } = block;
    const layers = Array.from({ length: steps }, (_, step) =>
      box(
        left + step * tread,
        front,
        step * rise,
        length - step * tread,
        step === steps - 1 ? shelf : width,
        rise,
      ),
    );
    const dimensions = dimensionsOf(block);
    return {
      solid: union(
        difference(
          union(...layers),
          ...holes.map((d, at) => cylinder(middleOf(at), holeY, -1, d / 2, height + 2)),
          box(slotX, slotY, -1, slot, slot, height + 2),
        ),
        ...bosses.map((d, at) =>
          cylinder(middleOf(2 - at), bossY, topOf(2 - at) - 0.5, d / 2, BOSS_HEIGHT + 0.5),
        ),
      ),
      dimensions,
      ladders: [],
      zones: [],
      checks: [],
      copies: [],
    };
  },
};

/** Where everything of a block lies, mm: its middle at 0, 0, its underside at 0. */
function blockOf(values: Readonly<Record<string, number>>) {
  const of = reader(values);
  const [length, width, height, steps] = [of('length'), of('width'), of('height'), of('steps')];
  const [tread, rise] = [length / steps, height / steps];
  const { holes, slot, bosses } = sizesOf(of('hole'));
  const [left, front] = [-length / 2, -width / 2];
  const middleOf = (step: number) => left + (step + 0.5) * tread;
  const topOf = (step: number) => (step + 1) * rise;
  const holeY = width / 2 - RIM - of('hole') / 2;
  const bossY = front + RIM + bosses[0] / 2;
  const shelf = SHELF_SHARE * width;
  const slotX = middleOf(0) - slot / 2;
  const slotY = front + RIM;
  return {
    length,
    width,
    height,
    steps,
    tread,
    rise,
    holes,
    slot,
    bosses,
    left,
    front,
    middleOf,
    topOf,
    holeY,
    bossY,
    shelf,
    slotX,
    slotY,
  };
}

/** The dimensions of the block, mm: lengths from its steps, then holes, bosses and the slot. */
function dimensionsOf(block: ReturnType<typeof blockOf>): PartDimension[] {
  const { steps, rise, left, tread, front, height, shelf, middleOf, topOf } = block;
  const { holes, holeY, bosses, bossY, slot, slotX, slotY } = block;
  const dimensions: PartDimension[] = [];
  const add = (
    id: string,
    name: string,
    axis: PartDimension['axis'],
    kind: PartDimension['kind'],
    from: PartDimension['from'],
    to: PartDimension['to'],
    limit_mm = 0.15,
  ) => {
    const nominal = Math.hypot(to[0] - from[0], to[1] - from[1], to[2] - from[2]);
    dimensions.push({
      id,
      name,
      axis,
      kind,
      nominal_mm: Number(nominal.toFixed(3)),
      limit_mm,
      from,
      to,
    });
  };
  for (let at = 1; at <= steps; at += 1) {
    const z = (steps - at + 0.5) * rise;
    const [word, limit] =
      at === 1 ? ['step', 0.15] : at < steps ? ['steps', 0.15] : ['length', 0.2];
    const start = left + (steps - at) * tread;
    add(`x${at}`, `x${at} ${word}`, 'x', 'external', [start, 0, z], [-left, 0, z], Number(limit));
  }
  const below = rise / 2;
  add('y1', 'y1 width', 'y', 'external', [left, front, below], [left, -front, below]);
  const shelfZ = height - rise / 2;
  const shelfX = middleOf(steps - 1);
  add('y2', 'y2 shelf', 'y', 'external', [shelfX, front, shelfZ], [shelfX, front + shelf, shelfZ]);
  for (let at = 0; at < steps; at += 1) {
    const x = middleOf(at);
    add(`z${at + 1}`, `z${at + 1} height`, 'z', 'height', [x, front, 0], [x, front, topOf(at)]);
  }
  holes.forEach((d, at) => {
    const [x, z] = [middleOf(at), topOf(at)];
    const from = [x - d / 2, holeY, z] as const;
    add(`hole-${sized(d)}`, `hole ${sized(d)}`, 'none', 'hole', from, [x + d / 2, holeY, z]);
  });
  bosses.forEach((d, at) => {
    const [x, z] = [middleOf(2 - at), topOf(2 - at) + BOSS_HEIGHT];
    const from = [x - d / 2, bossY, z] as const;
    add(`boss-${sized(d)}`, `boss ${sized(d)}`, 'none', 'boss', from, [x + d / 2, bossY, z]);
  });
  const slotName = `slot ${sized(slot)}`;
  const [midX, midY, top] = [slotX + slot / 2, slotY + slot / 2, rise];
  const alongX = [[slotX, midY, top] as const, [slotX + slot, midY, top] as const] as const;
  add('slot-x', `${slotName} along x`, 'x', 'internal', ...alongX);
  const alongY = [[midX, slotY, top] as const, [midX, slotY + slot, top] as const] as const;
  add('slot-y', `${slotName} along y`, 'y', 'internal', ...alongY);
  return dimensions;
}
