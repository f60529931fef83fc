export { chainsOf, type Chain, type FollowedUp } from './chains';
export { compareRuns, thingsChanged, type Changed } from './changed';
