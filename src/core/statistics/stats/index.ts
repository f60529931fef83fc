export {
  binomialUpperP,
  chiSquareQuantile,
  fUpperP,
  tQuantile,
  tTwoSidedP,
  zQuantile,
} from './distributions';
export { mapInterval, mapIntervalReversed, unknownInterval, type Interval } from './interval';
export { combinationVariance, leastSquares, type LeastSquares } from './least-squares';
export { bitDraws, gammaDraws, seededDraws, shuffled, type Draws } from './random';
export { oneSideInterval } from './one-side';
export {
  combineVariance,
  gatherValues,
  printMean,
  type CombinedVariance,
  type PrintMean,
  type PrintValues,
} from './print-means';
export { clopperPearson, poissonRate, wilson } from './rates';
export {
  maxAbs,
  mean,
  meanOf,
  meanOrNull,
  median,
  medianInPlace,
  medianOrNull,
  percentile,
  sum,
  sumOf,
  sumOfSquares,
} from './summary';
