export {
  accuracyOfAll,
  cellsOfType,
  axisPoints,
  isOutward,
  type Accuracy,
  type GroupError,
} from './accuracy';
export { type Advice, type AxisFit } from './axis-fit';
export { cellUncertainty, measure, type Cell, type Measurements } from './cells';
export { printValues, specimenErrors } from './print-values';
export { accuracyPair, type AccuracyPair } from './pair-values';
export { doubtReading, type Doubt } from './doubt';
export { plateOfAll, type PlateFit } from './plate';
export { squarenessOfAll, type Squareness } from './squareness';
export { driversOf, type Driver } from './drivers';
export { byPlace, type PlaceChange } from './by-place';
export { instrumentsOfAll, type InstrumentUse } from './instruments';
export { SIZE_BANDS, sizeBand, type SizeBand } from './size-bands';
