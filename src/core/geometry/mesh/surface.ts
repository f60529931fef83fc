import type { Welded } from './weld';

/** How the triangles of a mesh hang together. */
export interface Surface {
  /** Every edge lies in exactly two triangles that run along it in opposite directions. */
  isWatertight: boolean;
  /** Surfaces that hang together by edges. */
  shells: number;
  /** Edges that are not shared by two triangles the right way round. */
  badEdges: number;
}

/** The most runs along edges at one vertex that are compared one with another; more are sorted. */
const FEW_RUNS = 24;
/** More than there are runs: two for each triangle. */
const OWNERS = 2 ** 23;

/**
 * Looks at the edges of a mesh. Triangles that have shrunk to a line or point have none.
 *
 * Every side of a triangle is a run along an edge, forth or back. Runs are put together by the lower of their two
 * vertices, where only a handful lie: what belongs together lies side by side in memory, which a table of all edges
 * would not do.
 */
export function surfaceOf({ triangles, places }: Welded): Surface {
  const shells = new Shells(triangles);
  const { starts, highs, owners } = runsByVertex(triangles, places.length / 3);
  let bad = 0;
  for (let vertex = 0; vertex + 1 < starts.length; vertex += 1) {
    const start = starts[vertex]!;
    const end = starts[vertex + 1]!;
    if (end - start > FEW_RUNS) sortRuns(highs, owners, start, end);
    for (let at = start; at < end; at += 1) {
      const high = highs[at]!;
      if (high === DONE) continue;
      let forth = 0;
      let back = 0;
      const first = owners[at]! >>> 1;
      const isSorted = end - start > FEW_RUNS;
      for (let other = at; other < end; other += 1) {
        if (highs[other] !== high) {
          if (isSorted) break;
          continue;
        }
        highs[other] = DONE;
        const owner = owners[other]!;
        if ((owner & 1) === 0) forth += 1;
        else back += 1;
        shells.join(first, owner >>> 1);
      }
      if (forth !== 1 || back !== 1) bad += 1;
    }
  }
  const count = shells.count();
  return { isWatertight: count > 0 && bad === 0, shells: count, badEdges: bad };
}

/** Marks a run that has been counted: no vertex has this number. */
const DONE = 0xffffffff;

const isFlat = (a: number, b: number, c: number): boolean => a === b || b === c || c === a;

/**
 * The runs along edges by their lower vertex: those of vertex v lie from `starts[v]` to `starts[v + 1]`, each with its
 * higher vertex and its owner: twice the triangle, and one more where it runs back.
 */
function runsByVertex(
  triangles: Uint32Array,
  vertices: number,
): { starts: Uint32Array; highs: Uint32Array; owners: Uint32Array } {
  // Two more than vertices: while runs are put in, the next start is where they go.
  const starts = new Uint32Array(vertices + 2);
  let runs = 0;
  for (let at = 0; at < triangles.length; at += 3) {
    const a = triangles[at]!;
    const b = triangles[at + 1]!;
    const c = triangles[at + 2]!;
    if (isFlat(a, b, c)) continue;
    starts[(a < b ? a : b) + 2]! += 1;
    starts[(b < c ? b : c) + 2]! += 1;
    starts[(c < a ? c : a) + 2]! += 1;
    runs += 3;
  }
  for (let at = 2; at < starts.length; at += 1) starts[at]! += starts[at - 1]!;
  const highs = new Uint32Array(runs);
  const owners = new Uint32Array(runs);
  const put = (from: number, to: number, triangle: number) => {
    const isForth = from < to;
    const low = isForth ? from : to;
    const place = starts[low + 1]!;
    starts[low + 1] = place + 1;
    highs[place] = isForth ? to : from;
    owners[place] = 2 * triangle + (isForth ? 0 : 1);
  };
  for (let at = 0; at < triangles.length; at += 3) {
    const a = triangles[at]!;
    const b = triangles[at + 1]!;
    const c = triangles[at + 2]!;
    if (isFlat(a, b, c)) continue;
    const triangle = at / 3;
    put(a, b, triangle);
    put(b, c, triangle);
    put(c, a, triangle);
  }
  return { starts: starts.subarray(0, vertices + 1), highs, owners };
}

/** Sorts the runs of a vertex at which very many meet by their higher vertex. */
function sortRuns(highs: Uint32Array, owners: Uint32Array, start: number, end: number): void {
  const keys = new Float64Array(end - start);
  for (let at = start; at < end; at += 1) keys[at - start] = highs[at]! * OWNERS + owners[at]!;
  keys.sort();
  for (let at = start; at < end; at += 1) {
    const key = keys[at - start]!;
    highs[at] = Math.floor(key / OWNERS);
    owners[at] = key % OWNERS;
  }
}

/** Triangles that hang together, by a leader for each. */
class Shells {
  readonly #leaders: Int32Array;
  readonly #triangles: Uint32Array;

  constructor(triangles: Uint32Array) {
    this.#triangles = triangles;
    this.#leaders = new Int32Array(triangles.length / 3);
    for (let at = 0; at < this.#leaders.length; at += 1) this.#leaders[at] = at;
  }

  join(one: number, other: number): void {
    const a = this.#find(one);
    const b = this.#find(other);
    if (a < b) this.#leaders[b] = a;
    else if (b < a) this.#leaders[a] = b;
  }

  /** How many there are; flat triangles are none. */
  count(): number {
    const triangles = this.#triangles;
    let count = 0;
    for (let at = 0; at < this.#leaders.length; at += 1) {
      const isAlone = this.#leaders[at] === at;
      if (isAlone && !isFlat(triangles[3 * at]!, triangles[3 * at + 1]!, triangles[3 * at + 2]!))
        count += 1;
    }
    return count;
  }

  #find(from: number): number {
    const leaders = this.#leaders;
    let at = from;
    // Every second step is made shorter on the way.
    while (leaders[at] !== at) {
      const next = leaders[leaders[at]!]!;
      leaders[at] = next;
      at = next;
    }
    return at;
  }
}
