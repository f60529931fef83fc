import { listRows } from '../data';
import { app } from './app';

/** Mean seconds of a contender's finished prints of an artefact, by what they went into. */
export interface WallClock {
  contender: string;
  artefact: string;
  prints: number;
  heat_s: number;
  print_s: number;
  paused_s: number;
}

/** Where the wall-clock time of finished prints went; what is not known counts as 0. */
export async function wallClock(studyId: string): Promise<WallClock[]> {
  const prints = await listRows(app().db, studyId, 'prints');
  const groups = new Map<string, WallClock>();
  for (const row of prints) {
    if ((row.outcome !== 'success' && row.outcome !== 'rescued') || row.print_s === null) continue;
    const contender = String(row.contender_id);
    const artefact = String(row.artefact_id);
    const key = `${contender} ${artefact}`;
    const sum = groups.get(key) ?? {
      ...{ contender, artefact },
      ...{ prints: 0, heat_s: 0, print_s: 0, paused_s: 0 },
    };
    groups.set(key, {
      ...sum,
      prints: sum.prints + 1,
      heat_s: sum.heat_s + Number(row.heat_s ?? 0),
      print_s: sum.print_s + Number(row.print_s),
      paused_s: sum.paused_s + Number(row.paused_s ?? 0),
    });
  }
  return [...groups.values()].map((sum) => ({
    ...sum,
    heat_s: sum.heat_s / sum.prints,
    print_s: sum.print_s / sum.prints,
    paused_s: sum.paused_s / sum.prints,
  }));
}
