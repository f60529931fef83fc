export { fairnessOfAll, fairnessOfPair } from './check';
export type { Fairness, FairnessItem, FairnessResult } from './finding';
export { printFacts, type Fact, type PrintFacts } from './print-facts';
export { itemWords, sayValue } from './sentence';
export { planDifferences, sayPlanDifferences, unequalTo } from './plan-check';
export { foundOn, worstFound, type FoundOnArtefact } from './of-figure';
