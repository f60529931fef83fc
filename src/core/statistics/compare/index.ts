export {
  alphaOfEach,
  compareFamily,
  scatterOfPair,
  type FamilyOptions,
  type PairRow,
  type PairValues,
} from './pairs';
export { placesOf, placesText, type Places } from './places';
export { printsNeeded, printsToShow, type Verdict } from './verdict';
