export { functionsOfAll, type FunctionTally } from './functions';
export { laddersOfAll, type LadderLimit } from './ladders';
