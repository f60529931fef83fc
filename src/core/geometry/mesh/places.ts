import type { Drawable } from './drawing';
import { bendOf, cornersOf, placeOf, type Facets } from './facets';
import { dot, minus, type Vector } from './vector';

/** A flat face: where a jaw of the caliper lies. */
export interface FlatFace {
  id: string;
  /** Outwards, of length 1. */
  normal: Vector;
  /** Distance of its plane from the origin along the normal, mm. */
  offset: number;
  /** The box that holds it, mm. */
  min: Vector;
  max: Vector;
}

/** A round hole or boss whose axis lies along x, y or z. */
export interface RoundFace {
  id: string;
  axis: 'x' | 'y' | 'z';
  /** The middle of its length, mm. */
  centre: Vector;
  /** Fitted through its vertices, mm. */
  diameter: number;
  isHole: boolean;
  /** Half its length along the axis, mm. */
  halfLength: number;
}

/** What can be measured on a mesh. */
export interface MeasuringPlaces {
  faces: FlatFace[];
  rounds: RoundFace[];
  /** Where three sharp edges or more meet: ends of diagonals. */
  corners: Corner[];
}

export interface Corner {
  id: string;
  place: Vector;
}

/** Neighbours whose normals differ by less are one plane. */
const FLAT_COS = 1 - 1e-7;
/** Neighbours whose normals differ by less are one round surface: cylinders of 12 sides and more. */
const ROUND_COS = Math.cos((31 * Math.PI) / 180);
const LEAST_FACE_MM = 0.4;
const MOST_FACES = 600;
const MOST_CORNERS = 400;
/** Edges that bend by more are sharp. */
const SHARP_COS = Math.cos((25 * Math.PI) / 180);
const AXES = ['x', 'y', 'z'] as const;

/** Finds the flat faces and the round holes and bosses of a mesh. */
export function measuringPlaces({ facets }: Drawable): MeasuringPlaces {
  const flats = groupsOf(facets, (bend) => bend > FLAT_COS);
  const found = roundFaces(facets, flats);
  const curved = new Set(found.flatMap(({ strips }) => strips));
  const faces = [...flats]
    .filter(([strip]) => !curved.has(strip))
    .map(([, triangles]) => flatFace(facets, triangles))
    .filter((face) => Math.max(...minus(face.max, face.min)) > LEAST_FACE_MM)
    .sort((a, b) => areaOf(b) - areaOf(a))
    .slice(0, MOST_FACES)
    .sort(byPlace);
  return {
    faces: faces.map((face, at) => ({ ...face, id: `face-${at + 1}` })),
    rounds: found
      .map(({ round }) => round)
      .sort((a, b) => AXES.indexOf(a.axis) - AXES.indexOf(b.axis) || compare(a.centre, b.centre))
      .map((round, at) => ({ ...round, id: `round-${at + 1}` })),
    corners: cornerPlaces(facets).map((place, at) => ({ id: `corner-${at + 1}`, place })),
  };
}

/** The vertices at which at least three sharp edges end. */
function cornerPlaces(facets: Facets): Vector[] {
  const ends = new Map<number, number>();
  for (const edge of facets.edges) {
    const bend = bendOf(facets, edge);
    if (bend !== null && bend > SHARP_COS) continue;
    for (const end of [edge.from, edge.to]) ends.set(end, (ends.get(end) ?? 0) + 1);
  }
  return [...ends]
    .filter(([, edges]) => edges >= 3)
    .map(([vertex]) => placeOf(facets.welded, vertex))
    .sort(compare)
    .slice(0, MOST_CORNERS);
}

const compare = (a: Vector, b: Vector): number => a[2] - b[2] || a[1] - b[1] || a[0] - b[0];
const byPlace = (a: FlatFace, b: FlatFace) => compare(a.normal, b.normal) || a.offset - b.offset;
const areaOf = ({ min, max }: FlatFace): number => {
  const [w, d, h] = minus(max, min);
  return w * d + d * h + h * w;
};

/** Triangles that hang together over edges that bend as asked, by the first of each. */
function groupsOf(facets: Facets, joins: (bend: number) => boolean): Map<number, number[]> {
  const leader = facets.normals.map((_, at) => at);
  const find = (at: number): number => {
    let root = at;
    while (leader[root] !== root) root = leader[root] ?? root;
    for (let next = leader[at] ?? root; next !== root; next = leader[at] ?? root) {
      leader[at] = root;
      at = next;
    }
    return root;
  };
  for (const edge of facets.edges) {
    const bend = bendOf(facets, edge);
    if (bend === null || !joins(bend)) continue;
    const [a, b] = [find(edge.left), find(edge.right)];
    if (a !== b) leader[Math.max(a, b)] = Math.min(a, b);
  }
  const groups = new Map<number, number[]>();
  facets.normals.forEach((normal, at) => {
    if (dot(normal, normal) === 0) return;
    const root = find(at);
    const group = groups.get(root);
    if (group) group.push(at);
    else groups.set(root, [at]);
  });
  return groups;
}

function flatFace({ welded, normals }: Facets, triangles: readonly number[]): FlatFace {
  const min: [number, number, number] = [Infinity, Infinity, Infinity];
  const max: [number, number, number] = [-Infinity, -Infinity, -Infinity];
  const normal = normals[triangles[0] ?? 0] ?? [0, 0, 0];
  let offset = 0;
  for (const triangle of triangles) {
    for (const vertex of cornersOf(welded, triangle)) {
      const place = placeOf(welded, vertex);
      offset = dot(place, normal);
      place.forEach((value, axis) => {
        min[axis] = Math.min(min[axis] ?? 0, value);
        max[axis] = Math.max(max[axis] ?? 0, value);
      });
    }
  }
  return { id: '', normal, offset, min, max };
}

const LEAST_STRIPS = 10;

/** Rows of narrow flat strips that close into a cylinder along an axis. */
function roundFaces(
  facets: Facets,
  flats: ReadonlyMap<number, readonly number[]>,
): { round: RoundFace; strips: number[] }[] {
  const stripOf = new Map<number, number>();
  for (const [strip, triangles] of flats) {
    for (const triangle of triangles) stripOf.set(triangle, strip);
  }
  return AXES.flatMap((axis, k) => {
    const isAlong = (triangle: number) => Math.abs(facets.normals[triangle]?.[k] ?? 1) < 1e-4;
    const neighbours = new Map<number, Set<number>>();
    for (const edge of facets.edges) {
      const bend = bendOf(facets, edge);
      if (bend === null || bend < ROUND_COS || bend > FLAT_COS) continue;
      if (!isAlong(edge.left) || !isAlong(edge.right)) continue;
      const a = stripOf.get(edge.left) ?? -1;
      const b = stripOf.get(edge.right) ?? -1;
      if (a === b) continue;
      neighbours.set(a, (neighbours.get(a) ?? new Set()).add(b));
      neighbours.set(b, (neighbours.get(b) ?? new Set()).add(a));
    }
    const found: { round: RoundFace; strips: number[] }[] = [];
    const visited = new Set<number>();
    for (const start of neighbours.keys()) {
      if (visited.has(start)) continue;
      const strips = [start];
      visited.add(start);
      for (const strip of strips) {
        for (const next of neighbours.get(strip) ?? []) {
          if (visited.has(next)) continue;
          visited.add(next);
          strips.push(next);
        }
      }
      const isClosed = strips.every((strip) => (neighbours.get(strip)?.size ?? 0) >= 2);
      if (!isClosed || strips.length < LEAST_STRIPS) continue;
      const round = fitRound(
        facets,
        strips.flatMap((strip) => flats.get(strip) ?? []),
        axis,
        k,
      );
      if (round) found.push({ round, strips });
    }
    return found;
  });
}

/** The circle through the vertices of a cylinder, by least squares (Kåsa 1976); null where it is none. */
function fitRound(
  { welded, normals }: Facets,
  triangles: readonly number[],
  axis: RoundFace['axis'],
  k: number,
): RoundFace | null {
  const [i, j] = [(k + 1) % 3, (k + 2) % 3];
  const vertices = [...new Set(triangles.flatMap((triangle) => cornersOf(welded, triangle)))];
  const points = vertices.map((vertex) => placeOf(welded, vertex));
  const middle = (at: number) => points.reduce((sum, p) => sum + (p[at] ?? 0), 0) / points.length;
  const [mi, mj] = [middle(i), middle(j)];
  let [suu, svv, suv, suq, svq, sq] = [0, 0, 0, 0, 0, 0];
  for (const point of points) {
    const [u, v] = [(point[i] ?? 0) - mi, (point[j] ?? 0) - mj];
    const q = u * u + v * v;
    suu += u * u;
    svv += v * v;
    suv += u * v;
    suq += u * q;
    svq += v * q;
    sq += q;
  }
  const det = suu * svv - suv * suv;
  if (!(det > 0)) return null;
  const cu = (suq * svv - svq * suv) / (2 * det);
  const cv = (svq * suu - suq * suv) / (2 * det);
  const radius = Math.sqrt(cu * cu + cv * cv + sq / points.length);
  const isRound = points.every(
    (p) =>
      Math.abs(Math.hypot((p[i] ?? 0) - mi - cu, (p[j] ?? 0) - mj - cv) - radius) <
      0.01 + 0.002 * radius,
  );
  if (!isRound) return null;
  const first = triangles[0] ?? 0;
  const at = placeOf(welded, cornersOf(welded, first)[0]);
  const outwards =
    ((at[i] ?? 0) - mi - cu) * (normals[first]?.[i] ?? 0) +
    ((at[j] ?? 0) - mj - cv) * (normals[first]?.[j] ?? 0);
  const along = points.map((point) => point[k] ?? 0);
  const [low, high] = [Math.min(...along), Math.max(...along)];
  const centre: [number, number, number] = [0, 0, 0];
  centre[i] = mi + cu;
  centre[j] = mj + cv;
  centre[k] = (low + high) / 2;
  return {
    id: '',
    axis,
    centre,
    diameter: 2 * radius,
    isHole: outwards < 0,
    halfLength: (high - low) / 2,
  };
}
