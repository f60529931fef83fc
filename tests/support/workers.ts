import { availableParallelism } from 'node:os';

/** Beyond so many the one database of all tests is what they wait for. */
const MOST = 4;

/** How many tests run beside each other: as many as there are processors, or as `TEST_WORKERS` says. */
export const TEST_WORKERS: number =
  Number(process.env.TEST_WORKERS) || Math.min(MOST, Math.max(2, availableParallelism()));
