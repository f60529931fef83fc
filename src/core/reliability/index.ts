export { printHours } from './hours';
export { reliabilityOfAll, type Reliability, type ReliabilitySets } from './reliability';
