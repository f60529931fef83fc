export {
  alphaOfEach,
  compareFamily,
  scatterOfPair,
  type FamilyOptions,
  type PairRow,
  type PairValues,
} from './pairs';
export { placesOf, placesText, type Placed, type Places } from './places';
export { printsNeeded, printsToFind, printsToShow, type Verdict } from './verdict';
