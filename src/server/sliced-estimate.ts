import type { ToolpathFacts } from '../core/toolpath';
import type { VersionedRow } from '../data';

/** How long a file's print is to take, s: by the file's own word, else by the motion model. */
export const estimateOf = (facts: Pick<ToolpathFacts, 'annotated' | 'time_s'>): number =>
  Math.round(facts.annotated.time_s ?? facts.time_s);

/** The speed that a machine claims, mm/s. */
export const claimOf = (machine: VersionedRow): number | null =>
  typeof machine.claimed_speed_mm_s === 'number' && machine.claimed_speed_mm_s > 0
    ? machine.claimed_speed_mm_s
    : null;
