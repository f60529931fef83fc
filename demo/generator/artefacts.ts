import type { Axis, DimensionKind, Row, Tables } from '../../src/core/study';

interface Size {
  id: string;
  name: string;
  axis: Axis;
  kind: DimensionKind;
  nominal: number;
  /** Symmetric limit, mm. */
  limit: number;
}

const size = (
  id: string,
  name: string,
  axis: Axis,
  kind: DimensionKind,
  nominal: number,
  limit = 0.15,
): Size => ({ id, name, axis, kind, nominal, limit });

const SIZES: Record<string, readonly Size[]> = {
  'stair-block': [
    size('x1', 'x1 step', 'x', 'external', 20),
    size('x2', 'x2 steps', 'x', 'external', 40),
    size('x3', 'x3 steps', 'x', 'external', 60),
    size('x4', 'x4 length', 'x', 'external', 80, 0.2),
    size('y1', 'y1 width', 'y', 'external', 30),
    size('y2', 'y2 shelf', 'y', 'external', 18),
    size('z1', 'z1 height', 'z', 'height', 8),
    size('z2', 'z2 height', 'z', 'height', 16),
    size('z3', 'z3 height', 'z', 'height', 24),
    size('z4', 'z4 height', 'z', 'height', 32),
    size('hole-8', 'hole 8', 'none', 'hole', 8),
    size('hole-6', 'hole 6', 'none', 'hole', 6),
    size('hole-5', 'hole 5', 'none', 'hole', 5),
    size('boss-10', 'boss 10', 'none', 'boss', 10),
    size('boss-6', 'boss 6', 'none', 'boss', 6),
    size('slot-x', 'slot 8 along x', 'x', 'internal', 8),
    size('slot-y', 'slot 8 along y', 'y', 'internal', 8),
  ],
  'tile-field': [
    size('tile-x', 'tile along x', 'x', 'external', 40),
    size('tile-y', 'tile along y', 'y', 'external', 40),
    size('tile-z', 'tile thickness', 'z', 'height', 4, 0.1),
  ],
};

const CLEARANCES = [0.6, 0.5, 0.4, 0.3, 0.25, 0.2, 0.15];
const OVERHANGS = [30, 40, 50, 60, 70, 80];
const BRIDGES = [10, 20, 30, 40, 50, 60];

/** Centres of the twelve tiles of a plate, in mm from its middle. */
export const TILE_PLACES: readonly (readonly [number, number])[] = [-75, -25, 25, 75].flatMap((x) =>
  [-60, 0, 60].map((y) => [x, y] as const),
);

/** The benchmark parts of the clip bench, with all that is looked at on them. */
export function artefacts(): Pick<
  Tables,
  'artefacts' | 'dimensions' | 'ladders' | 'ladder_steps' | 'zones'
> {
  const artefact = (artefact_id: string, name: string, notes: string): Row<'artefacts'> => ({
    artefact_id,
    name,
    version: '1',
    mesh: null,
    mesh_sha256: null,
    notes,
  });
  const ladder = (
    artefact_id: string,
    ladder_id: string,
    name: string,
    quantity: Row<'ladders'>['quantity'],
    unit: string,
  ) => ({ artefact_id, ladder_id, name, quantity, unit });
  const steps = (artefact_id: string, ladder_id: string, values: readonly number[]) =>
    values.map((value, at) => ({ artefact_id, ladder_id, step: at + 1, value }));
  const zone = (artefact_id: string, zone_id: string, name: string, weight: number) => ({
    artefact_id,
    zone_id,
    name,
    weight,
  });
  return {
    artefacts: [
      artefact(
        'stair-block',
        'Stair block',
        '80 × 30 × 32 mm: four steps, holes, bosses, a square slot.',
      ),
      artefact('tile-field', 'Tile field', 'Twelve 40 × 40 × 4 mm tiles over the plate.'),
      artefact('spire-pair', 'Spire pair', 'Two slim cones 35 mm apart on a foot.'),
      artefact(
        'ring-stack',
        'Ring stack',
        'Rings printed one in another, clearances from 0.60 to 0.15 mm.',
      ),
      artefact(
        'echo-wall',
        'Echo wall',
        'A tall wall with sharp corners, relief lettering and a notch.',
      ),
      artefact(
        'lantern',
        'Lantern',
        'Overhangs from 30 to 80 degrees and bridges from 10 to 60 mm.',
      ),
    ],
    dimensions: Object.entries(SIZES).flatMap(([artefact_id, sizes]) =>
      sizes.map(({ id, name, axis, kind, nominal, limit }) => ({
        artefact_id,
        dimension_id: id,
        name,
        axis,
        kind,
        nominal_mm: nominal,
        lower_tol_mm: -limit,
        upper_tol_mm: limit,
      })),
    ),
    ladders: [
      ladder('ring-stack', 'clearance', 'Rings that turn', 'clearance', 'mm'),
      ladder('lantern', 'overhang', 'Overhangs', 'overhang', '°'),
      ladder('lantern', 'bridge', 'Bridges', 'bridge', 'mm'),
    ],
    ladder_steps: [
      ...steps('ring-stack', 'clearance', CLEARANCES),
      ...steps('lantern', 'overhang', OVERHANGS),
      ...steps('lantern', 'bridge', BRIDGES),
    ],
    zones: [
      zone('echo-wall', 'corners', 'wall with corners', 3),
      zone('echo-wall', 'lettering', 'relief lettering', 2),
      zone('echo-wall', 'notch', 'notch', 1),
      zone('echo-wall', 'first-layer', 'first layer', 1),
      zone('spire-pair', 'between', 'between the spires', 2),
      zone('spire-pair', 'tips', 'tips', 1),
    ],
  };
}
