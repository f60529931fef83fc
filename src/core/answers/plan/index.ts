export { runOrder, USUAL_ORDER, type OrderOptions, type PlannedPrint } from './order';
export { detectableDifference, pooledScatter, successesInARow, type Scatter } from './repeats';
export { lotStocks, type LotStock } from './stock';
export { expectedMass } from './masses';
export { proposedDifferences, type DifferenceFacts, type DifferenceProposal } from './difference';
