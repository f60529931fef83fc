import type { Soup } from './soup';
import { cross, minus, unit, type Vector } from './vector';

const HEAD = 84;
const FACET = 50;

/** A mesh as a binary STL, mm. Coordinates are rounded to single precision, as the format has it. */
export function writeStl({ corners, triangles }: Soup): Uint8Array {
  const bytes = new Uint8Array(HEAD + FACET * triangles);
  const view = new DataView(bytes.buffer);
  bytes.set(new TextEncoder().encode('binary STL, mm'));
  view.setUint32(80, triangles, true);
  for (let triangle = 0; triangle < triangles; triangle += 1) {
    const at = HEAD + FACET * triangle;
    const corner = (index: number): Vector => {
      const from = 9 * triangle + 3 * index;
      return [corners[from] ?? 0, corners[from + 1] ?? 0, corners[from + 2] ?? 0];
    };
    const [a, b, c] = [corner(0), corner(1), corner(2)];
    const normal = unit(cross(minus(b, a), minus(c, a)));
    [...normal, ...a, ...b, ...c].forEach((value, index) => {
      view.setFloat32(at + 4 * index, value, true);
    });
  }
  return bytes;
}
