export { fairnessOfAll, fairnessOfPair } from './check';
export type { Fairness, FairnessItem, FairnessResult } from './finding';
export { printFacts, type Fact, type PrintFacts } from './print-facts';
export { itemWords, formatValue } from './sentence';
export { planDifferences, describePlanDifferences, unequalTo } from './plan-check';
export { foundOn, worstFound, type FoundOnArtefact } from './of-figure';
