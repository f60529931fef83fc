import { cross, dot, minus, unit, type Vector } from './vector';
import type { Welded } from './weld';

/** An edge of a mesh and the triangles on its two sides; `right` is −1 where there is none. */
export interface Edge {
  from: number;
  to: number;
  left: number;
  right: number;
  /** More than two triangles, or two that do not run along it in opposite directions. */
  isOdd: boolean;
}

/** A welded mesh with the normals of its triangles and its edges. */
export interface Facets {
  welded: Welded;
  normals: Vector[];
  edges: Edge[];
}

export const placeOf = ({ places }: Welded, vertex: number): Vector => [
  places[3 * vertex] ?? 0,
  places[3 * vertex + 1] ?? 0,
  places[3 * vertex + 2] ?? 0,
];

/** The vertices of a triangle. */
export const cornersOf = ({ triangles }: Welded, triangle: number): [number, number, number] => [
  triangles[3 * triangle] ?? 0,
  triangles[3 * triangle + 1] ?? 0,
  triangles[3 * triangle + 2] ?? 0,
];

/** Normals and edges of a mesh. Triangles that have shrunk to a line have neither. */
export function facetsOf(welded: Welded): Facets {
  const count = welded.triangles.length / 3;
  const vertices = welded.places.length / 3;
  const normals: Vector[] = [];
  const known = new Map<number, Edge>();
  for (let triangle = 0; triangle < count; triangle += 1) {
    const corners = cornersOf(welded, triangle);
    const a = placeOf(welded, corners[0]);
    const b = placeOf(welded, corners[1]);
    const c = placeOf(welded, corners[2]);
    const normal = unit(cross(minus(b, a), minus(c, a)));
    normals.push(normal);
    if (dot(normal, normal) === 0) continue;
    corners.forEach((from, at) => {
      const to = corners[(at + 1) % 3] ?? 0;
      const key = Math.min(from, to) * vertices + Math.max(from, to);
      const edge = known.get(key);
      if (!edge) known.set(key, { from, to, left: triangle, right: -1, isOdd: false });
      else if (edge.right < 0 && edge.from === to) edge.right = triangle;
      else edge.isOdd = true;
    });
  }
  return { welded, normals, edges: [...known.values()] };
}

/** Cosine of the angle between the normals on the two sides; null at an open or odd edge. */
export function bendOf({ normals }: Facets, edge: Edge): number | null {
  const left = normals[edge.left];
  const right = normals[edge.right];
  return edge.isOdd || !left || !right ? null : dot(left, right);
}
