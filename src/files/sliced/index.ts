export { analyseFile } from './analyse';
export { SlicedFileError } from './open';
export { packageSettings } from './package-settings';
export { packageToolpaths, type PackageToolpaths } from './package-toolpaths';
export { statedSettings } from './stated-settings';
export type { ReadOutcome, ReadTask } from './reading';
