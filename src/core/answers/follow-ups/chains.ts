import { instant, type Print, type Row, type Study } from '../../model/study';
import { compareRuns, thingsChanged, type Changed } from './changed';

/** One step from a print to the one that followed it up. */
export interface FollowedUp {
  follow_up: Row<'follow_ups'>;
  after: Print;
  /** What really differed between the two. */
  changed: Changed[];
  /** How many things that are; more than one leaves open which it was. */
  things: number;
}

/** A cause that was followed from print to print. */
export interface Chain {
  first: Print;
  steps: FollowedUp[];
}

/** The chains of follow-ups of a study, the one begun last first. A print may be followed more than once. */
export function chainsOf(study: Study): Chain[] {
  const { follow_ups, prints } = study.tables;
  const byId = new Map(prints.map((print) => [print.print_id, print]));
  const compare = compareRuns(study);
  const reached = new Set(follow_ups.map((row) => row.print_after));
  const from = (id: string, seen: ReadonlySet<string>): FollowedUp[][] => {
    const before = byId.get(id);
    const next = follow_ups.filter((row) => row.print_before === id && !seen.has(row.print_after));
    if (!before || next.length === 0) return [[]];
    return next.flatMap((follow_up) => {
      const after = byId.get(follow_up.print_after);
      if (!after) return [];
      const changed = compare(before, after);
      const step = { follow_up, after, changed, things: thingsChanged(changed) };
      return from(after.print_id, new Set([...seen, id])).map((rest) => [step, ...rest]);
    });
  };
  const roots = new Set(follow_ups.map((row) => row.print_before).filter((id) => !reached.has(id)));
  const time = (print: Print) => (print.started_at === null ? 0 : instant(print.started_at));
  return [...roots]
    .flatMap((id) => {
      const first = byId.get(id);
      return first ? from(id, new Set()).map((steps) => ({ first, steps })) : [];
    })
    .filter((chain) => chain.steps.length > 0)
    .sort((a, b) => time(b.first) - time(a.first));
}
