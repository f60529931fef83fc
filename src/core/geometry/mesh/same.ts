import type { Soup } from './soup';
import { weld } from './weld';

/** Vertices nearer than this are taken for the same, mm. */
const SAME_MM = 1e-3;

/**
 * Whether two meshes have their vertices in the same places: every vertex of one has one of the
 * other within 0.001 mm, and they are as many.
 */
export function sameVertices(a: Soup, b: Soup): boolean {
  const [p, q] = [weld(a).places, weld(b).places];
  if (p.length !== q.length) return false;
  const cells = new Map<string, number[]>();
  const cellOf = (value: number) => Math.floor(value / (2 * SAME_MM));
  for (let at = 0; at < p.length; at += 3) {
    const key = `${cellOf(p[at] ?? 0)} ${cellOf(p[at + 1] ?? 0)} ${cellOf(p[at + 2] ?? 0)}`;
    const there = cells.get(key);
    if (there) there.push(at);
    else cells.set(key, [at]);
  }
  const taken = new Set<number>();
  const isNear = (one: number, x: number, y: number, z: number) =>
    !taken.has(one) &&
    Math.hypot((p[one] ?? 0) - x, (p[one + 1] ?? 0) - y, (p[one + 2] ?? 0) - z) <= SAME_MM;
  const spans = (value: number) => [cellOf(value - SAME_MM), cellOf(value + SAME_MM)] as const;
  const find = (x: number, y: number, z: number): number => {
    for (const i of new Set(spans(x))) {
      for (const j of new Set(spans(y))) {
        for (const k of new Set(spans(z))) {
          const one = cells.get(`${i} ${j} ${k}`)?.find((each) => isNear(each, x, y, z));
          if (one !== undefined) return one;
        }
      }
    }
    return -1;
  };
  for (let at = 0; at < q.length; at += 3) {
    const one = find(q[at] ?? 0, q[at + 1] ?? 0, q[at + 2] ?? 0);
    if (one < 0) return false;
    taken.add(one);
  }
  return true;
}
