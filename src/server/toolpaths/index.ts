export { analyseFile } from './analyse';
export { SlicedFileError } from './open';
