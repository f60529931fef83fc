export { analyseFile } from './analyse';
export { SlicedFileError } from './open';
export { packageSettings } from './package-settings';
export { statedSettings } from './stated-settings';
export type { ReadOutcome, ReadTask } from './reading';
