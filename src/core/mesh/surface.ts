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

/** Looks at the edges of a mesh. Triangles that have shrunk to a line or point have none. */
export function surfaceOf({ triangles }: Welded): Surface {
  const count = triangles.length / 3;
  const leader = new Int32Array(count).map((_, at) => at);
  const find = (at: number): number => {
    let root = at;
    while (leader[root] !== root) root = leader[root] ?? root;
    while (leader[at] !== root) {
      const next = leader[at] ?? root;
      leader[at] = root;
      at = next;
    }
    return root;
  };
  const isFlat = new Uint8Array(count);
  for (let triangle = 0; triangle < count; triangle += 1) {
    const a = triangles[3 * triangle] ?? 0;
    const b = triangles[3 * triangle + 1] ?? 0;
    const c = triangles[3 * triangle + 2] ?? 0;
    isFlat[triangle] = a === b || b === c || c === a ? 1 : 0;
  }
  const table = new EdgeTable(3 * count);
  for (let triangle = 0; triangle < count; triangle += 1) {
    if (isFlat[triangle]) continue;
    for (let side = 0; side < 3; side += 1) {
      const from = triangles[3 * triangle + side] ?? 0;
      const to = triangles[3 * triangle + ((side + 1) % 3)] ?? 0;
      const first = table.note(from, to, triangle);
      if (first >= 0) {
        const [a, b] = [find(first), find(triangle)];
        if (a !== b) leader[Math.max(a, b)] = Math.min(a, b);
      }
    }
  }
  const bad = table.countBad();
  let shells = 0;
  for (let triangle = 0; triangle < count; triangle += 1) {
    if (!isFlat[triangle] && find(triangle) === triangle) shells += 1;
  }
  return { isWatertight: count > 0 && shells > 0 && bad === 0, shells, badEdges: bad };
}

/** Words of an edge in the table: its two ends, the first triangle at it, how often it is run along. */
const WORDS = 4;
/** Counts runs the other way in the upper half of the word. */
const BACK = 1 << 16;
const MOST_RUNS = 0x7fff;

/**
 * Undirected edges, each with how often it is run along one way and the other. All of an edge lies
 * side by side: the table is far larger than a processor's cache, and each look costs one miss.
 */
class EdgeTable {
  readonly #mask: number;
  readonly #words: Int32Array;

  constructor(edges: number) {
    let size = 1024;
    // In a mesh that does not hang together every edge is another one: there is room for all.
    while (size < 1.15 * edges) size *= 2;
    this.#mask = size - 1;
    this.#words = new Int32Array(WORDS * size);
  }

  /** Notes that a triangle runs along an edge; gives the first triangle at it, -1 for none before. */
  note(from: number, to: number, triangle: number): number {
    const words = this.#words;
    const low = from < to ? from : to;
    const high = from < to ? to : from;
    let hash = Math.imul(low, 0x9e3779b1) ^ Math.imul(high, 0x85ebca6b);
    hash = Math.imul(hash ^ (hash >>> 15), 0x2c1b3c6d);
    let slot = (hash ^ (hash >>> 13)) & this.#mask;
    // No edge ends where it begins, and its higher end is never 0: 0 there marks a free place.
    for (;;) {
      const at = WORDS * slot;
      if (words[at + 1] === 0) {
        words[at] = low;
        words[at + 1] = high;
        words[at + 2] = triangle;
        words[at + 3] = from === low ? 1 : BACK;
        return -1;
      }
      if (words[at] === low && words[at + 1] === high) {
        const runs = words[at + 3] ?? 0;
        const isForth = from === low;
        const count = isForth ? runs & 0xffff : runs >>> 16;
        if (count < MOST_RUNS) words[at + 3] = runs + (isForth ? 1 : BACK);
        return words[at + 2] ?? -1;
      }
      slot = (slot + 1) & this.#mask;
    }
  }

  countBad(): number {
    const words = this.#words;
    let bad = 0;
    for (let at = 0; at < words.length; at += WORDS) {
      if (words[at + 1] !== 0 && words[at + 3] !== BACK + 1) bad += 1;
    }
    return bad;
  }
}
