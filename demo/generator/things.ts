import { createHash } from 'node:crypto';
import type { ItemKind } from '../../src/core/answers/workshop';

/** The moment at which the co-operative began its workshop, as the first 48 bits of a UUID v7 have it. */
const BEGAN = Date.parse('2025-10-20T08:00:00Z').toString(16).padStart(12, '0');

/** The lasting id of a thing of the demo: the same in every study that has it. */
export function uidOf(kind: ItemKind, id: string): string {
  const hash = createHash('sha256').update(`${kind} ${id}`).digest('hex');
  const parts = [BEGAN.slice(0, 8), BEGAN.slice(8), `7${hash.slice(0, 3)}`, `8${hash.slice(3, 6)}`];
  return [...parts, hash.slice(6, 18)].join('-');
}
