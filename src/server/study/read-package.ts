import { codeOf } from '../../core/model/faults';
import type { PackageOutcome, PackageTask } from '../../files/packages';
import type { App } from '../app';
import { RequestError } from '../http/problem';

/** A package that takes longer than this to be read and checked is given up. */
const PATIENCE_MS = 60_000;

/**
 * What reads and checks packages on the application's threads.
 *
 * @throws RequestError where one is more than can be read, or nobody waits for it any more
 */
export const packageReader =
  (app: App) =>
  async (task: PackageTask, asked: AbortSignal | undefined): Promise<PackageOutcome> => {
    const timeout = AbortSignal.timeout(PATIENCE_MS);
    const signal = asked ? AbortSignal.any([asked, timeout]) : timeout;
    try {
      return await app.importers.run(task, { signal });
    } catch (error) {
      const isGone = error instanceof Error && error.name === 'AbortError';
      if (isGone || codeOf(error) === 'ERR_WORKER_OUT_OF_MEMORY') {
        throw new RequestError(413, 'The package is more than can be read: nothing was imported.');
      }
      throw error;
    }
  };
