export { JOINED, joinedStudy } from './joined';
export { recordOf, type MachineRecord } from './record';
export { factDifferences, keptInStep, type FactDifference } from './differences';
export {
  factNames,
  factsOf,
  fieldNamesOf,
  KINDS,
  kindOfTable,
  nameOfThing,
  ITEM_KINDS,
  type Facts,
  type ItemKind,
} from './kinds';
export { besideEachOther, pairKey, proposeSame, type KnownThing } from './same';
