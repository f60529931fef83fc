export { compareFamily, type FamilyOptions, type PairRow, type PairValues } from './pairs';
export { printsNeeded, type Verdict } from './verdict';
