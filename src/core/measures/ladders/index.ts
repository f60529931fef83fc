export { functionsOfAll, type FunctionTally } from './functions';
export { isHarderMore, laddersOfAll, type LadderLimit } from './ladders';
