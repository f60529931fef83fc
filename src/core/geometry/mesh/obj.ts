import { cutPolygon } from './polygon';
import { MeshError, Soup } from './soup';

type Point = readonly [number, number, number];

/**
 * Reads the polygons of a Wavefront OBJ file; lines, normals and materials are left alone.
 *
 * @throws MeshError with the line at fault
 */
export function readObj(text: string): Soup {
  const soup = new Soup();
  const points: Point[] = [];
  const lines = text.replace(/\\\r?\n/g, ' ').split(/\r\n|\r|\n/);
  for (const [at, line] of lines.entries()) {
    const words = line.replace(/#.*/, '').trim().split(/\s+/);
    if (words[0] === 'v') points.push(readPoint(words, at + 1));
    else if (words[0] === 'f') {
      const corners = words.slice(1);
      if (corners.length < 3) throw new MeshError(`line ${at + 1}: a face needs three corners`);
      const polygon = corners.map((corner) => pointOf(points, corner, at + 1));
      for (const triangle of cutPolygon(polygon)) {
        for (const corner of triangle) soup.add(...(polygon[corner] ?? [NaN, NaN, NaN]));
      }
    }
  }
  return soup;
}

function readPoint(words: readonly string[], line: number): Point {
  const [x = NaN, y = NaN, z = NaN] = words.slice(1, 4).map(Number);
  if (![x, y, z].every(Number.isFinite)) {
    throw new MeshError(`line ${line}: a vertex needs three numbers (${words.slice(1).join(' ')})`);
  }
  return [x, y, z];
}

/** The vertex that a corner names: `7`, `7/1/2`, or counted back from the last, `-1`. */
function pointOf(points: readonly Point[], corner: string, line: number): Point {
  const named = Number(corner.split('/')[0]);
  const point = points[named < 0 ? points.length + named : named - 1];
  if (!Number.isInteger(named) || !point) {
    throw new MeshError(`line ${line}: “${corner}” names no vertex`);
  }
  return point;
}
