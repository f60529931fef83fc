export { allGoodNeeded, shareDifference } from './share-difference';
export {
  sweepOf,
  type Sweep,
  type SweepFigure,
  type SweepLimit,
  type SweepOfFigure,
  type SweepStep,
} from './sweep';
