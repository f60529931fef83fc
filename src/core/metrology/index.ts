export { accuracyOfAll, axisPoints, type Accuracy, type GroupError } from './accuracy';
export { type Advice, type AxisFit } from './axis-fit';
export { measure, type Cell, type Measurements } from './cells';
export { printValues, specimenErrors } from './print-values';
export { accuracyPair, type AccuracyPair } from './pair-values';
export { doubtReading, type Doubt } from './doubt';
export { plateOfAll, type PlateFit } from './plate';
export { squarenessOfAll, type Squareness } from './squareness';
