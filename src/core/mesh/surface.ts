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
export function surfaceOf({ places, triangles }: Welded): Surface {
  const count = triangles.length / 3;
  const vertices = places.length / 3;
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
      const low = Math.min(from, to);
      const high = Math.max(from, to);
      const slot = table.find(low, high, low * vertices + high);
      const first = table.first(slot);
      if (first >= 0) {
        const [a, b] = [find(first), find(triangle)];
        if (a !== b) leader[Math.max(a, b)] = Math.min(a, b);
      }
      table.note(slot, triangle, from === low);
    }
  }
  const bad = table.countBad();
  let shells = 0;
  for (let triangle = 0; triangle < count; triangle += 1) {
    if (!isFlat[triangle] && find(triangle) === triangle) shells += 1;
  }
  return { isWatertight: count > 0 && shells > 0 && bad === 0, shells, badEdges: bad };
}

/** Undirected edges, each with how often it is run along one way and the other. */
class EdgeTable {
  readonly #mask: number;
  readonly #keys: Float64Array;
  readonly #first: Int32Array;
  readonly #forth: Uint8Array;
  readonly #back: Uint8Array;

  constructor(edges: number) {
    let size = 1024;
    // In a mesh that does not hang together every edge is another one: there is room for all.
    while (size < 1.15 * edges) size *= 2;
    this.#mask = size - 1;
    this.#keys = new Float64Array(size).fill(-1);
    this.#first = new Int32Array(size).fill(-1);
    this.#forth = new Uint8Array(size);
    this.#back = new Uint8Array(size);
  }

  find(low: number, high: number, key: number): number {
    let hash = Math.imul(low, 0x9e3779b1) ^ Math.imul(high, 0x85ebca6b);
    hash = Math.imul(hash ^ (hash >>> 15), 0x2c1b3c6d);
    let slot = (hash ^ (hash >>> 13)) & this.#mask;
    while (this.#keys[slot] !== -1 && this.#keys[slot] !== key) slot = (slot + 1) & this.#mask;
    this.#keys[slot] = key;
    return slot;
  }

  first(slot: number): number {
    return this.#first[slot] ?? -1;
  }

  note(slot: number, triangle: number, isForth: boolean): void {
    if (this.#first[slot] === -1) this.#first[slot] = triangle;
    const side = isForth ? this.#forth : this.#back;
    side[slot] = Math.min(200, (side[slot] ?? 0) + 1);
  }

  countBad(): number {
    let bad = 0;
    for (let slot = 0; slot <= this.#mask; slot += 1) {
      if (this.#keys[slot] === -1) continue;
      if (this.#forth[slot] !== 1 || this.#back[slot] !== 1) bad += 1;
    }
    return bad;
  }
}
