import { fieldOf } from '../core/model/study';
import { refused, messageOf } from '../core/model/faults';
import { guessPurpose, machineOf } from '../core/toolpath';
import {
  analyseFile,
  SlicedFileError,
  statedSettings,
  type ReadOutcome,
  type ReadTask,
} from '../files/sliced';

const TOLD_EVERY_MS = 200;

/** Worker thread: finds what a sliced file is for, and reads it from end to end. */
export default async function run(task: ReadTask): Promise<ReadOutcome> {
  let toldAt = 0;
  try {
    const purpose =
      task.confirmed ?? guessPurpose(task.name, await statedSettings(task.path), task.lineUp);
    const machine = machineOf(purpose.contender_id, task.lineUp);
    const facts = await analyseFile(task.path, { machine }, (read, stored) => {
      if (Date.now() - toldAt < TOLD_EVERY_MS) return;
      toldAt = Date.now();
      task.port.postMessage(Math.min(1, read / stored));
    });
    return { facts: { ...facts, file: task.name }, purpose };
  } catch (error) {
    const isInput = error instanceof SlicedFileError || fieldOf(error, 'name') === 'NoMotionError';
    if (!isInput) throw error;
    return refused(messageOf(error).replace(/^[^:]*: /, ''));
  } finally {
    task.port.close();
  }
}
