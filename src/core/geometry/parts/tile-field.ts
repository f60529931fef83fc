import { parameter, reader, sized, type PartDesign, type PartDimension } from './part';
import { box, difference, union } from './solid';

const SLIT = 1.2;

/** Equal tiles all over the plate: what one place prints otherwise than another. */
export const tileField: PartDesign = {
  key: 'tile-field',
  name: 'Tile field',
  about:
    'Equal tiles over the plate, each with a slit at its right back corner to tell how it lay: ' +
    'accuracy by plate position.',
  parameters: [
    parameter('plate_x', 'plate, along x', 230, 100, 1000),
    parameter('plate_y', 'plate, along y', 200, 100, 1000),
    parameter('margin', 'margin to the plate’s edge', 20, 2, 100),
    parameter('tile', 'tile', 40, 15, 80),
    parameter('thickness', 'thickness', 4, 2, 20, 0.5),
    parameter('columns', 'tiles along x', 4, 2, 10, 1, ''),
    parameter('rows', 'tiles along y', 3, 2, 10, 1, ''),
  ],
  faults: (values) => {
    const of = reader(values);
    const fault = (side: 'plate_x' | 'plate_y', count: number, axis: string) => {
      const wanted = 2 * of('margin') + count * of('tile') + (count - 1) * 2;
      return of(side) < wanted
        ? [
            `${count} tiles with 2 mm between them need ${sized(wanted)} mm along ${axis}: fewer or ` +
              'smaller tiles, or a smaller margin',
          ]
        : [];
    };
    return [...fault('plate_x', of('columns'), 'x'), ...fault('plate_y', of('rows'), 'y')];
  },
  make: (values) => {
    const of = reader(values);
    const [tile, thickness] = [of('tile'), of('thickness')];
    const middles = (side: number, count: number): number[] => {
      const reach = side - 2 * of('margin') - tile;
      return Array.from({ length: count }, (_, at) => -reach / 2 + (at * reach) / (count - 1));
    };
    const ys = middles(of('plate_y'), of('rows'));
    const copies = middles(of('plate_x'), of('columns')).flatMap((x) =>
      ys.map((y) => [x, y] as const),
    );
    const half = tile / 2;
    const one = (x: number, y: number) =>
      difference(box(x - half, y - half, 0, tile, tile, thickness), {
        shape: 'turned',
        degrees: 45,
        at: [x + half, y + half, 0],
        solid: box(-tile / 4, -SLIT / 2, -1, tile / 2, SLIT, thickness + 2),
      });
    const [x, y] = copies[0] ?? [0, 0];
    const dimension = (
      id: string,
      name: string,
      axis: PartDimension['axis'],
      nominal_mm: number,
      limit_mm: number,
      from: PartDimension['from'],
      to: PartDimension['to'],
    ): PartDimension => ({
      id,
      name,
      axis,
      kind: axis === 'z' ? 'height' : 'external',
      nominal_mm,
      limit_mm,
      from,
      to,
    });
    const [front, left, z] = [y - half, x - half, thickness / 2];
    return {
      solid: union(...copies.map((place) => one(...place))),
      dimensions: [
        dimension('tile-x', 'tile along x', 'x', tile, 0.15, [left, y, z], [left + tile, y, z]),
        dimension('tile-y', 'tile along y', 'y', tile, 0.15, [x, front, z], [x, front + tile, z]),
        dimension(
          'tile-z',
          'tile thickness',
          'z',
          thickness,
          0.1,
          [x, front, 0],
          [x, front, thickness],
        ),
      ],
      ladders: [],
      zones: [],
      checks: [],
      copies,
    };
  },
};
