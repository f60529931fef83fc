export {
  shares,
  type ByContender,
  type Card,
  type Criterion,
  type Evidence as CriterionEvidence,
  type EvidenceOfCriteria,
  type Gate,
} from './card';
export { largestWorth, utilityAt, type Curve } from './curve';
export { passes, utilityOf } from './score';
export {
  fillScorecard,
  whyNoTurningPrice,
  type ContenderScore,
  type Scorecard,
  type WeighedValue,
} from './scorecard';
export { PRICE } from './turning-price';
