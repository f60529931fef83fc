import { refused } from '../core/model/faults';
import { PackageError } from '../files/packages';
import {
  cutFrames,
  FrozenDataError,
  modelOf,
  readModel,
  writeCards,
  writePage,
  type ReportOutcome,
  type ReportTask,
} from '../files/report';

/** Worker thread: makes reports from frozen data. */
export default async function run(task: ReportTask): Promise<ReportOutcome> {
  try {
    if (task.do === 'model') return await modelOf(task);
    if (task.do === 'frames') return { notes: await cutFrames(task.folder, task.places) };
    const model = await readModel(task.model);
    if (task.do === 'cards') return { written: await writeCards(task.folder, model) };
    return { written: await writePage(task.folder, model) };
  } catch (error) {
    if (error instanceof PackageError || error instanceof FrozenDataError) {
      return refused(error.message);
    }
    throw error;
  }
}
