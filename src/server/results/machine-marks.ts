import { listRows } from '../../data';
import type { App } from '../app';
import type { StudyFrame } from '../study/frame';

/** A machine as it is marked: the letter and hue of its contenders, and its name. */
export interface MachineMark {
  letter: string;
  hue: number;
  name: string;
}

/** The machines of a study's contenders, by id, as they are marked. */
export async function machinesOfContenders(
  app: App,
  { studyId, marks }: StudyFrame,
): Promise<Record<string, MachineMark>> {
  const contenders = await listRows(app.db, studyId, 'contenders');
  return Object.fromEntries(
    contenders.flatMap(({ contender_id, machine_id }) => {
      const mark = marks.find((one) => one.contender_id === contender_id);
      if (!mark) return [];
      const letter = mark.letter.replace(/[^A-Z]/g, '');
      return [[machine_id, { letter, hue: mark.hue, name: mark.machineName }] as const];
    }),
  );
}
