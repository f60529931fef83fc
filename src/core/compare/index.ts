export {
  alphaOfEach,
  compareFamily,
  scatterOfPair,
  type FamilyOptions,
  type PairRow,
  type PairValues,
} from './pairs';
export { printsNeeded, printsToFind, printsToShow, type Verdict } from './verdict';
