import { recordOf, type MachineRecord } from '../../core/answers/workshop';
import { groupBy, type Print } from '../../core/model/study';
import {
  incidentsOfMachines,
  listItems,
  printsOfMachines,
  usesOfThings,
  type CatalogueItem,
  type ItemUse,
} from '../../data';
import type { App } from '../app';
import { mostPrinted } from './standings';

/** A machine of the workshop as the list shows it. */
export interface ListedMachine extends MachineRecord {
  thing: CatalogueItem;
  studies: { study_id: string; title: string }[];
  /** Where its best contender stands on the artefact that most printed. */
  place: { place: number; of: number } | null;
}

/** The studies that things are in, once each, the one begun last first. */
export const studiesOf = (uses: readonly ItemUse[]): { study_id: string; title: string }[] => [
  ...new Map(uses.map(({ study_id, title }) => [study_id, { study_id, title }] as const)).values(),
];

/** Every machine of the workshop with what it did. */
export async function machinesPage(app: App): Promise<{
  machines: ListedMachine[];
  standings: { artefact: string; uid: string } | null;
}> {
  const { db } = app;
  const [things, uses, prints, incidents, standings] = await Promise.all([
    listItems(db, 'machine'),
    usesOfThings(db, 'machine'),
    printsOfMachines(db),
    incidentsOfMachines(db),
    mostPrinted(app),
  ]);
  const ofItem = groupBy(prints, (one) => one.thing);
  const usedBy = groupBy(uses, (use) => use.uid);
  const counts = new Map(incidents.map((one) => [one.thing, one.incidents]));
  return {
    machines: things.map((thing) => ({
      thing,
      ...recordOf(
        (ofItem.get(thing.uid) ?? []).map((one) => one.print as Print),
        counts.get(thing.uid) ?? 0,
        thing.facts.firmware === null ? null : String(thing.facts.firmware ?? '') || null,
      ),
      studies: studiesOf(usedBy.get(thing.uid) ?? []),
      place: standings?.places.get(thing.uid) ?? null,
    })),
    standings: standings && { artefact: standings.artefact, uid: standings.uid },
  };
}
