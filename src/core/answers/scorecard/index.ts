export {
  cardOf,
  shares,
  type Card,
  type Criterion,
  type Evidence as CriterionEvidence,
  type EvidenceOfCriteria,
  type Gate,
} from './card';
export { largestWorth, utilityAt, type Curve } from './curve';
export { passes } from './score';
export { fillScorecard, whyNoTurningPrice, type ContenderScore, type Scorecard } from './scorecard';
export { PRICE } from './turning-price';
