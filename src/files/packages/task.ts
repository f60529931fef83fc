import type { OrRefused } from '../../core/model/faults';
import type { ReadResult } from '../../core/model/package';
import type { Settings } from '../../core/model/study';

/** Which package a thread is to read and check. */
export interface PackageTask {
  path: string;
}

/** What is in a package and what its sliced files state, by path; or why it cannot be opened. */
export type PackageOutcome = OrRefused<{
  result: ReadResult;
  stated: ReadonlyMap<string, Settings>;
}>;
