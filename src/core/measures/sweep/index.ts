export { allGoodNeeded, shareDifference, type Tally } from './share-difference';
export {
  sweepOf,
  type Sweep,
  type SweepFigure,
  type SweepLimit,
  type SweepOfFigure,
  type SweepStep,
  type SweptSetting,
} from './sweep';
