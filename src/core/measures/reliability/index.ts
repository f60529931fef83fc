export { printHours } from './hours';
export {
  reliabilityOfAll,
  withoutOperators,
  type Reliability,
  type ReliabilitySets,
} from './reliability';
export { modesOfAll, type ModeTally } from './modes';
export { survivalOfAll, type SurvivalRow } from './survival';
export { printsToTellApart } from './needed';
