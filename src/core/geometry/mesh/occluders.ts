import { cornersOf, type Facets } from './facets';
import { united } from './line-work';
import type { View } from './view';
import { dot } from './vector';

/** A vertex as the view sees it: right, up, and nearness to the eye, mm. */
export type Seen = readonly [number, number, number];

/** So much nearer to the eye a face must be to hide a line, mm. */
const NEARER_MM = 2e-3;
const MOST_CELLS = 220;
/** Large faces on top of each other lie in many cells: the grid gets coarser until so few are noted. */
const MOST_NOTES = 4_000_000;

/** The faces that can hide something, in a grid over the sheet. */
export class Occluders {
  readonly #faces: Float64Array;
  readonly #cells: Int32Array[];
  readonly #low: readonly [number, number];
  #pitch: readonly [number, number] = [1, 1];
  #count = 1;
  readonly #asked: Int32Array;
  #ask = 0;

  constructor({ welded, normals }: Facets, seen: readonly Seen[], view: View, isClosed: boolean) {
    const chosen: number[] = [];
    normals.forEach((normal, at) => {
      const facing = dot(normal, view.toward);
      if (isClosed ? facing > 1e-6 : Math.abs(facing) > 1e-6) chosen.push(at);
    });
    this.#faces = new Float64Array(9 * chosen.length);
    chosen.forEach((triangle, at) => {
      cornersOf(welded, triangle).forEach((vertex, corner) => {
        this.#faces.set(seen[vertex] ?? [0, 0, 0], 9 * at + 3 * corner);
      });
    });
    this.#asked = new Int32Array(chosen.length);
    let [u0, v0, u1, v1] = [Infinity, Infinity, -Infinity, -Infinity];
    for (const [u, v] of seen) {
      u0 = Math.min(u0, u);
      v0 = Math.min(v0, v);
      u1 = Math.max(u1, u);
      v1 = Math.max(v1, v);
    }
    this.#low = [u0, v0];
    this.#count = Math.max(1, Math.min(MOST_CELLS, Math.ceil(Math.sqrt(chosen.length / 2))));
    for (;;) {
      this.#pitch = [
        Math.max(1e-6, (u1 - u0) / this.#count),
        Math.max(1e-6, (v1 - v0) / this.#count),
      ];
      let notes = 0;
      for (let at = 0; at < chosen.length; at += 1) {
        const [i0, j0, i1, j1] = this.#cellsOf(...this.#boxOf(at));
        notes += (i1 - i0 + 1) * (j1 - j0 + 1);
      }
      if (notes <= MOST_NOTES || this.#count === 1) break;
      this.#count = Math.ceil(this.#count / 2);
    }
    const lists: number[][] = Array.from({ length: this.#count ** 2 }, () => []);
    for (let at = 0; at < chosen.length; at += 1) {
      this.#eachCell(...this.#boxOf(at), (cell) => lists[cell]?.push(at));
    }
    this.#cells = lists.map((list) => Int32Array.from(list));
  }

  /** The box of a face on the sheet: least u and v, largest u and v. */
  #boxOf(face: number): [number, number, number, number] {
    const f = this.#faces;
    const at = 9 * face;
    const [a, b, c, d] = [f[at] ?? 0, f[at + 1] ?? 0, f[at + 3] ?? 0, f[at + 4] ?? 0];
    const [e, g] = [f[at + 6] ?? 0, f[at + 7] ?? 0];
    return [Math.min(a, c, e), Math.min(b, d, g), Math.max(a, c, e), Math.max(b, d, g)];
  }

  /** The cells that hold a box: least column and row, largest column and row. */
  #cellsOf(u0: number, v0: number, u1: number, v1: number): [number, number, number, number] {
    const index = (value: number, axis: 0 | 1) =>
      Math.max(
        0,
        Math.min(this.#count - 1, Math.floor((value - this.#low[axis]) / this.#pitch[axis])),
      );
    return [index(u0, 0), index(v0, 1), index(u1, 0), index(v1, 1)];
  }

  #eachCell(u0: number, v0: number, u1: number, v1: number, visit: (cell: number) => void): void {
    const [i0, j0, i1, j1] = this.#cellsOf(u0, v0, u1, v1);
    for (let j = j0; j <= j1; j += 1) {
      for (let i = i0; i <= i1; i += 1) visit(j * this.#count + i);
    }
  }

  /** The spans of a line, 0 at its first end and 1 at its second, that faces nearer to the eye hide. */
  hiddenSpans(from: Seen, to: Seen): [number, number][] {
    const spans: [number, number][] = [];
    this.#ask += 1;
    this.#eachCell(
      Math.min(from[0], to[0]),
      Math.min(from[1], to[1]),
      Math.max(from[0], to[0]),
      Math.max(from[1], to[1]),
      (cell) => {
        for (const face of this.#cells[cell] ?? []) {
          if (this.#asked[face] === this.#ask) continue;
          this.#asked[face] = this.#ask;
          const span = this.#hiddenBy(face, from, to);
          if (span) spans.push(span);
        }
      },
    );
    return united(spans);
  }

  /** The span of a line that lies within a face, its border too, and behind it. */
  #hiddenBy(face: number, from: Seen, to: Seen): [number, number] | null {
    const f = this.#faces;
    const at = 9 * face;
    const [u0, v0] = [from[0], from[1]];
    const [du, dv, dw] = [to[0] - u0, to[1] - v0, to[2] - from[2]];
    const [ax, ay, az] = [f[at]!, f[at + 1]!, f[at + 2]!];
    const [bx, by, bz] = [f[at + 3]! - ax, f[at + 4]! - ay, f[at + 5]! - az];
    const [cx, cy, cz] = [f[at + 6]! - ax, f[at + 7]! - ay, f[at + 8]! - az];
    const area = bx * cy - by * cx;
    if (Math.abs(area) < 1e-9) return null;
    // Barycentric parts of the place at t, and how much nearer the face is there: all linear in t.
    const [px, py] = [u0 - ax, v0 - ay];
    const s0 = (px * cy - py * cx) / area;
    const s1 = (du * cy - dv * cx) / area;
    const t0 = (bx * py - by * px) / area;
    const t1 = (bx * dv - by * du) / area;
    let low = 0;
    let high = 1;
    const keep = (value: number, slope: number): boolean => {
      if (Math.abs(slope) < 1e-12) return value >= 0;
      const root = -value / slope;
      if (slope > 0) low = Math.max(low, root);
      else high = Math.min(high, root);
      return low < high;
    };
    const border = 1e-7;
    if (!keep(s0 + border, s1) || !keep(t0 + border, t1)) return null;
    if (!keep(1 - s0 - t0 + border, -s1 - t1)) return null;
    const nearer = az + s0 * bz + t0 * cz - from[2] - NEARER_MM;
    if (!keep(nearer, s1 * bz + t1 * cz - dw)) return null;
    return high - low > 1e-9 ? [low, high] : null;
  }
}
