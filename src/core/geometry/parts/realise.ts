import type { Manifold, ManifoldToplevel } from 'manifold-3d';
import { Soup } from '../mesh';
import type { Solid } from './solid';

/** The solid modeller, once it is set up. */
export type Kernel = Pick<
  ManifoldToplevel,
  'Manifold' | 'setMinCircularAngle' | 'setMinCircularEdgeLength'
>;

/** Round things have so many corners a turn at least: 72 keep a 10 mm hole within 0.005 mm. */
const MOST_TURN_DEG = 5;
const LEAST_SIDE_MM = 0.25;

/** Computes the surface of a solid; mm. @throws Error where nothing is left of it */
export function realise(kernel: Kernel, solid: Solid): Soup {
  kernel.setMinCircularAngle(MOST_TURN_DEG);
  kernel.setMinCircularEdgeLength(LEAST_SIDE_MM);
  const made = make(kernel, solid);
  const { numProp, vertProperties, triVerts } = made.getMesh();
  made.delete();
  if (triVerts.length === 0) throw new Error('nothing is left of this solid');
  const soup = new Soup(triVerts.length / 3);
  for (const vertex of triVerts) {
    const at = vertex * numProp;
    soup.add(
      vertProperties[at] ?? NaN,
      vertProperties[at + 1] ?? NaN,
      vertProperties[at + 2] ?? NaN,
    );
  }
  return soup;
}

/** Intermediate solids live in the modeller's memory: each is freed as soon as it is used. */
function make(kernel: Kernel, solid: Solid): Manifold {
  const { Manifold } = kernel;
  const using = <T>(held: Manifold[], use: () => T): T => {
    try {
      return use();
    } finally {
      for (const one of held) one.delete();
    }
  };
  const all = (solids: readonly Solid[]) => solids.map((one) => make(kernel, one));
  const moved = (held: Manifold, at: readonly [number, number, number]) =>
    using([held], () => held.translate([...at]));
  switch (solid.shape) {
    case 'box':
      return moved(Manifold.cube([...solid.size]), solid.at);
    case 'cone':
      return moved(Manifold.cylinder(solid.height, solid.bottom, solid.top), solid.at);
    case 'profile': {
      // Drawn in x and y and made deep along z, then stood up: y becomes z, z becomes −y.
      const flat = Manifold.extrude(
        [solid.outline.map(([x, z]): [number, number] => [x, z])],
        solid.depth,
      );
      const upright = using([flat], () => flat.rotate([90, 0, 0]));
      const [x, y, z] = solid.at;
      return moved(upright, [x, y + solid.depth, z]);
    }
    case 'turned': {
      const inner = make(kernel, solid.solid);
      return moved(
        using([inner], () => inner.rotate([0, 0, solid.degrees])),
        solid.at,
      );
    }
    case 'union': {
      const parts = all(solid.solids);
      return using(parts, () => Manifold.union(parts));
    }
    case 'difference': {
      const parts = [make(kernel, solid.from), ...all(solid.cut)];
      return using(parts, () => Manifold.difference(parts));
    }
  }
}
