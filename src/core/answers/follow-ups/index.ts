export { chainsOf } from './chains';
export { compareRuns, thingsChanged, type Changed } from './changed';
