/** Worker thread: reads and checks a study package on disk. */
export { readPackageOnDisk as default } from '../files/read-package';
