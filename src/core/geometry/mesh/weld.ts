import type { Soup } from './soup';

/** Corners nearer than this are one vertex, mm. */
const ONE_VERTEX_MM = 1e-4;
/** Side of the cells in which neighbours are looked for: much larger, so that few cells are asked. */
const CELL_MM = 1e-2;

/** A mesh whose corners are numbered vertices. */
export interface Welded {
  /** Vertices, x y z of one after another, mm. */
  places: Float64Array;
  /** Three vertices a triangle. */
  triangles: Uint32Array;
}

/** Makes corners that lie nearer than 1e-4 mm one vertex; the first one's place counts. */
export function weld(soup: Soup): Welded {
  const { corners } = soup;
  const count = corners.length / 3;
  const triangles = new Uint32Array(count);
  const table = new CellTable(count);
  // A closed surface has about one vertex to six corners.
  let places = new Float64Array(Math.max(3, Math.ceil(corners.length / 5)));
  let vertices = 0;
  const near = ONE_VERTEX_MM * ONE_VERTEX_MM;
  /** The vertex of a cell that lies here; -1 for none. */
  const seek = (i: number, j: number, k: number, x: number, y: number, z: number): number => {
    for (let at = table.first(i, j, k); at >= 0; at = table.next(at)) {
      const dx = (places[3 * at] ?? 0) - x;
      const dy = (places[3 * at + 1] ?? 0) - y;
      const dz = (places[3 * at + 2] ?? 0) - z;
      if (dx * dx + dy * dy + dz * dz < near) return at;
    }
    return -1;
  };
  for (let corner = 0; corner < count; corner += 1) {
    const x = corners[3 * corner] ?? 0;
    const y = corners[3 * corner + 1] ?? 0;
    const z = corners[3 * corner + 2] ?? 0;
    const i = Math.floor(x / CELL_MM);
    const j = Math.floor(y / CELL_MM);
    const k = Math.floor(z / CELL_MM);
    let found = seek(i, j, k, x, y, z);
    if (found < 0) {
      // A vertex near a cell's border may lie across it.
      const i0 = Math.floor((x - ONE_VERTEX_MM) / CELL_MM);
      const i1 = Math.floor((x + ONE_VERTEX_MM) / CELL_MM);
      const j0 = Math.floor((y - ONE_VERTEX_MM) / CELL_MM);
      const j1 = Math.floor((y + ONE_VERTEX_MM) / CELL_MM);
      const k0 = Math.floor((z - ONE_VERTEX_MM) / CELL_MM);
      const k1 = Math.floor((z + ONE_VERTEX_MM) / CELL_MM);
      if (i0 !== i1 || j0 !== j1 || k0 !== k1) {
        for (let u = i0; u <= i1 && found < 0; u += 1) {
          for (let v = j0; v <= j1 && found < 0; v += 1) {
            for (let w = k0; w <= k1 && found < 0; w += 1) found = seek(u, v, w, x, y, z);
          }
        }
      }
    }
    if (found < 0) {
      found = vertices;
      vertices += 1;
      if (3 * vertices > places.length) {
        const grown = new Float64Array(2 * places.length + 3);
        grown.set(places);
        places = grown;
      }
      places[3 * found] = x;
      places[3 * found + 1] = y;
      places[3 * found + 2] = z;
      table.add(i, j, k, found);
    }
    triangles[corner] = found;
  }
  return { places: places.subarray(0, 3 * vertices), triangles };
}

/** Vertices by the cell that they lie in: heads of chains in a hash table. */
class CellTable {
  readonly #mask: number;
  readonly #heads: Int32Array;
  #chain: Int32Array;

  /** @param corners of which most are no vertices of their own */
  constructor(corners: number) {
    let size = 1024;
    while (4 * size < corners) size *= 2;
    this.#mask = size - 1;
    this.#heads = new Int32Array(size).fill(-1);
    this.#chain = new Int32Array(size);
  }

  first(i: number, j: number, k: number): number {
    return this.#heads[this.#slot(i, j, k)] ?? -1;
  }

  next(vertex: number): number {
    return this.#chain[vertex] ?? -1;
  }

  add(i: number, j: number, k: number, vertex: number): void {
    const slot = this.#slot(i, j, k);
    if (vertex >= this.#chain.length) {
      const grown = new Int32Array(2 * this.#chain.length);
      grown.set(this.#chain);
      this.#chain = grown;
    }
    this.#chain[vertex] = this.#heads[slot] ?? -1;
    this.#heads[slot] = vertex;
  }

  #slot(i: number, j: number, k: number): number {
    let hash = Math.imul(i, 0x9e3779b1) ^ Math.imul(j, 0x85ebca6b) ^ Math.imul(k, 0xc2b2ae35);
    hash = Math.imul(hash ^ (hash >>> 15), 0x2c1b3c6d);
    return (hash ^ (hash >>> 13)) & this.#mask;
  }
}
