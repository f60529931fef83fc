import { fieldNamesOf, KINDS, type ItemKind } from '../../core/answers/workshop';
import { groupBy, instant, type Row } from '../../core/model/study';
import {
  listRowsBy,
  listItems,
  materialsUsed,
  usesOfThings,
  type Merged,
  type CatalogueItem,
  type ItemUse,
} from '../../data';
import type { App } from '../app';
import { resultsOf } from '../results/results';
import { studiesOf } from './machines';
import { mergedOf, thenAndToday, thingOf, type ThenAndToday } from './things';

/** A material of the workshop with what was printed of it. */
export interface ListedMaterial {
  thing: CatalogueItem;
  studies: { study_id: string; title: string }[];
  prints: number;
  used_g: number;
  /** What of it nobody weighed, g. */
  not_weighed_g: number;
  /** What was bought of it, g; null where no spool is written down. */
  bought_g: number | null;
  spools: Row<'spools'>[];
}

/** The materials of the workshop: lots, spools, what is left. */
export async function materialsPage(app: App): Promise<ListedMaterial[]> {
  const { db } = app;
  const [things, uses, used] = await Promise.all([
    listItems(db, 'material'),
    usesOfThings(db, 'material'),
    materialsUsed(db),
  ]);
  const usedBy = groupBy(uses, (use) => use.uid);
  return Promise.all(
    things.map(async (thing): Promise<ListedMaterial> => {
      const own = usedBy.get(thing.uid) ?? [];
      const spools = new Map<string, Row<'spools'>>();
      for (const use of own) {
        for (const row of await listRowsBy(db, use.study_id, 'spools', 'material_id', use.id)) {
          spools.set(row.spool_id, row);
        }
      }
      const sum = used.find((one) => one.thing === thing.uid);
      const all = [...spools.values()];
      return {
        thing,
        studies: studiesOf(own),
        spools: all,
        prints: sum?.prints ?? 0,
        used_g: sum?.used_g ?? 0,
        not_weighed_g: sum?.not_weighed_g ?? 0,
        bought_g: all.length > 0 ? all.reduce((total, row) => total + row.mass_g, 0) : null,
      };
    }),
  );
}

/** An instrument of the workshop over the years. */
export interface ListedInstrument {
  thing: CatalogueItem;
  /** What it repeated in each study, mm; null where nothing was read twice. */
  uses: {
    study_id: string;
    title: string;
    id: string;
    repeatability_mm: number | null;
    readings: number;
  }[];
  /** Looks at its zero, the oldest first. */
  zeros: { at: string; value_mm: number }[];
}

/** The instruments of the workshop: certificate, zero, what they repeat. */
export async function instrumentsPage(app: App): Promise<ListedInstrument[]> {
  const { db } = app;
  const [things, uses] = await Promise.all([
    listItems(db, 'instrument'),
    usesOfThings(db, 'instrument'),
  ]);
  const found = new Map<string, Awaited<ReturnType<typeof known>>>();
  const known = (studyId: string) => resultsOf(app, { studyId, reference: null }, ['instruments']);
  for (const { study_id } of uses) {
    if (!found.has(study_id)) found.set(study_id, await known(study_id));
  }
  return Promise.all(
    things.map(async (thing): Promise<ListedInstrument> => {
      const own = uses.filter((use) => use.uid === thing.uid);
      const zeros = await Promise.all(
        own.map((use) => listRowsBy(db, use.study_id, 'zero_checks', 'instrument_id', use.id)),
      );
      return {
        thing,
        uses: own.map(({ study_id, title, id }) => {
          const use = found.get(study_id)?.instruments?.[id];
          return {
            study_id,
            title,
            id,
            repeatability_mm: use?.repeatability_mm ?? null,
            readings: use?.readings ?? 0,
          };
        }),
        zeros: zeros
          .flat()
          .map(({ at, value_mm }) => ({ at, value_mm }))
          .sort((a, b) => instant(a.at) - instant(b.at)),
      };
    }),
  );
}

/** A profile of the workshop. */
export interface ListedProfile {
  thing: CatalogueItem;
  /** The machines that it was used on. */
  machines: string[];
  studies: { study_id: string; title: string }[];
  settings: number;
}

/** The profiles of the workshop and where they were used. */
export async function profilesPage(app: App): Promise<ListedProfile[]> {
  const { db } = app;
  const [things, uses] = await Promise.all([listItems(db, 'profile'), usesOfThings(db, 'profile')]);
  const usedBy = groupBy(uses, (use) => use.uid);
  return Promise.all(
    things.map(async (thing): Promise<ListedProfile> => {
      const own = usedBy.get(thing.uid) ?? [];
      const machines = new Set<string>();
      for (const use of own) {
        const contenders = await listRowsBy(db, use.study_id, 'contenders', 'profile_id', use.id);
        for (const { machine_id } of contenders) {
          const [machine] = await listRowsBy(
            db,
            use.study_id,
            'machines',
            'machine_id',
            machine_id,
          );
          if (machine) machines.add(machine.name);
        }
      }
      const [latest] = own;
      const settings = latest
        ? await listRowsBy(db, latest.study_id, 'profile_settings', 'profile_id', latest.id)
        : [];
      return { thing, machines: [...machines], studies: studiesOf(own), settings: settings.length };
    }),
  );
}

/** One thing with what is known of it and where it was used. */
export interface ItemPage {
  thing: CatalogueItem;
  uses: ItemUse[];
  then: ThenAndToday[];
  merged: Merged[];
  /** The settings of a profile, as its latest study has them. */
  settings: Row<'profile_settings'>[];
  /** The table and facts that its form is made of. */
  table: (typeof KINDS)[ItemKind]['table'];
  fields: string[];
}

/** A thing of the workshop by itself. @throws NotFoundError */
export async function thingPage(app: App, uid: string, kind: ItemKind): Promise<ItemPage | null> {
  const { db } = app;
  const thing = await thingOf(app, uid);
  if (thing.kind !== kind) return null;
  const [uses, then, merged] = await Promise.all([
    usesOfThings(db, kind, thing.uid),
    thenAndToday(app, thing),
    mergedOf(app, thing),
  ]);
  const [latest] = uses;
  const settings =
    kind === 'profile' && latest
      ? await listRowsBy(db, latest.study_id, 'profile_settings', 'profile_id', latest.id)
      : [];
  return {
    thing,
    uses,
    then,
    merged,
    settings,
    table: KINDS[kind].table,
    fields: fieldNamesOf(kind),
  };
}
