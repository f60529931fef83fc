export type { LibraryArtefact } from '../server/workshop/artefacts';
export type { MachineDossier } from '../server/workshop/dossier';
export type { FoundThing } from '../server/workshop/find';
export type { ListedMachine } from '../server/workshop/machines';
export type { ShownStanding, StandingsPage } from '../server/workshop/standings';
export type { ListedInstrument } from '../server/workshop/supplies';
export type { AskedPair, CatalogueItem } from '../server/workshop/things';
