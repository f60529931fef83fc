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
  THING_KINDS,
  type Facts,
  type ThingKind,
} from './kinds';
export { besideEachOther, pairKey, proposeSame, type KnownThing } from './same';
