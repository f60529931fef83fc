import { isHarderMore } from '../../core/measures/ladders';
import type { MeshSheet } from '../../core/geometry/mesh';
import type { EvaluateTask } from '../../core/answers/results';
import {
  sameArtefacts,
  type DrawnRow,
  type KnownArtefact,
  type StandingStudy,
} from '../../core/answers/standings';
import { contenderMarks, type Study, type TableName } from '../../core/model/study';
import {
  artefactsEverywhere,
  findItem,
  listStudies,
  listTables,
  listItems,
  loadStudy,
  revisionOf,
  itemsOfStudy,
  type AnyArtefact,
  type CatalogueItem,
} from '../../data';
import type { App } from '../app';
import { sheetOfFile } from '../artefacts';

/** Everyone who printed an artefact, as a page shows it. */
export interface StandingsPage {
  thing: CatalogueItem;
  /** The drawing of its mesh; null without one. */
  sheet: MeshSheet | null;
  identity: string | null;
  /** Its ladders by id: name, unit, and whether harder steps have the larger values. */
  ladders: Record<string, { name: string; unit: string; isMore: boolean }>;
  /** How many sizes are measured on it. */
  dimensions: number;
  rows: ShownStanding[];
  /** Other versions of it that stand apart. */
  others: { uid: string; name: string; version: string | null; prints: number }[];
}

/** A row of the standings with the names of what it is. */
export interface ShownStanding extends DrawnRow {
  study_id: string;
  study_title: string;
  machine: string;
  /** The machine in the workshop. */
  machine_uid: string;
  profile: string;
  isTuned: boolean;
  hue: number;
}

/** The artefacts of all studies in groups that are the same: by mesh, by id, or as people said. */
export async function artefactGroups(app: App): Promise<AnyArtefact[][]> {
  const { db, drawingEdition } = app;
  const all = await artefactsEverywhere(db, drawingEdition);
  for (const one of all) {
    if (one.identity !== null || one.file === null) continue;
    const sheet = await sheetOfFile(app, one.file);
    one.identity = sheet?.facts.identity ?? null;
  }
  const order = [...new Set(all.map((one) => one.study_id))];
  const known = all.map((one): KnownArtefact & { any: AnyArtefact } => ({
    any: one,
    study: order.indexOf(one.study_id),
    artefact: one.artefact,
    thing: one.thing,
    mesh: one.file ? { identity: one.identity, sha256: one.file.sha256 } : null,
  }));
  return sameArtefacts(known).map((group) =>
    group.map((one) => (one as (typeof known)[number]).any),
  );
}

/** What the standings are computed from. */
const TABLES: readonly TableName[] = [
  'machines',
  'profiles',
  'profile_settings',
  'materials',
  'contenders',
  'artefacts',
  'dimensions',
  'retired_dimensions',
  'ladders',
  'ladder_steps',
  'zones',
  'prints',
  'specimens',
  'instruments',
  'readings',
  'ladder_results',
  'inspections',
  'findings',
];

/** A study with only what is known of some of its artefacts, so that little goes to the thread. */
function onlyOf(study: Study, artefacts: ReadonlySet<string>): Study {
  const { tables } = study;
  const prints = tables.prints.filter((row) => artefacts.has(row.artefact_id));
  const printed = new Set(prints.map((row) => row.print_id));
  const specimens = tables.specimens.filter((row) => printed.has(row.print_id));
  const parts = new Set(specimens.map((row) => row.specimen_id));
  const own = <Row extends { specimen_id: string }>(rows: Row[]) =>
    rows.filter((row) => parts.has(row.specimen_id));
  const looked = <Row extends { artefact_id: string }>(rows: Row[]) =>
    rows.filter((row) => artefacts.has(row.artefact_id));
  return {
    ...study,
    tables: {
      ...tables,
      prints,
      specimens,
      artefacts: looked(tables.artefacts),
      dimensions: looked(tables.dimensions),
      ladders: looked(tables.ladders),
      zones: looked(tables.zones),
      readings: own(tables.readings),
      ladder_results: own(tables.ladder_results),
      inspections: own(tables.inspections),
      findings: own(tables.findings),
    },
  };
}

/** What is one group here is one there, by whatever it was found to be. */
const TOGETHER = { identity: 'one', sha256: null };

/** Standings that were computed, by what they were computed from: the last few. */
const kept = new Map<string, Promise<Computed>>();
const MOST_KEPT = 50;

/** What a group's standings are, with the names of who stands there. */
interface Computed {
  rows: DrawnRow[];
  /** The line-ups, by study: what the rows are called. */
  lineUps: Map<string, Pick<Study['tables'], 'contenders' | 'profiles' | 'machines'>>;
}

/** The rows of a group's standings, computed off the main thread once for each state of its studies. */
async function computed(app: App, group: readonly AnyArtefact[]): Promise<Computed> {
  const { db, edition } = app;
  const ids = [...new Set(group.map((one) => one.study_id))];
  const revisions = await Promise.all(ids.map((id) => revisionOf(db, id)));
  const parts = group.map((one) => `${one.study_id} ${one.artefact.artefact_id}`);
  const key = [edition, ...parts, ...revisions].join(' ');
  let made = kept.get(key);
  if (!made) {
    made = compute(app, group, ids);
    kept.set(key, made);
    void made.catch(() => kept.delete(key));
    for (const old of [...kept.keys()].slice(0, -MOST_KEPT)) kept.delete(old);
  }
  return made;
}

async function compute(
  app: App,
  group: readonly AnyArtefact[],
  ids: readonly string[],
): Promise<Computed> {
  const { db, threads } = app;
  const given: StandingStudy[] = [];
  const lineUps: Computed['lineUps'] = new Map();
  for (const studyId of ids) {
    const { study } = await loadStudy(db, studyId, TABLES);
    const own = group.filter((one) => one.study_id === studyId);
    const part = onlyOf(study, new Set(own.map(({ artefact }) => artefact.artefact_id)));
    const { contenders, profiles, machines } = part.tables;
    lineUps.set(studyId, { contenders, profiles, machines });
    given.push({
      // Two studies may have one name; here each is known by its id.
      study: { ...part, meta: { ...part.meta, name: studyId } },
      meshes: new Map(own.map((one) => [one.artefact.artefact_id, TOGETHER])),
    });
  }
  const task: EvaluateTask = { standings: given };
  const outcome = await threads.run(task);
  const rows = 'standings' in outcome ? outcome.standings.flatMap((one) => one.rows) : [];
  return { rows, lineUps };
}

/** The standings of an artefact of the workshop. @throws NotFoundError */
export async function standingsPage(app: App, uid: string): Promise<StandingsPage> {
  const thing = await findItem(app.db, uid);
  return pageOf(app, thing, await artefactGroups(app));
}

async function pageOf(
  app: App,
  thing: CatalogueItem,
  groups: readonly AnyArtefact[][],
): Promise<StandingsPage> {
  const { db } = app;
  const group = groups.find((members) => members.some((one) => one.thing === thing.uid)) ?? [];
  const { rows, lineUps } = await computed(app, group);
  const machines = new Map<string, { uid: string; name: string }>();
  for (const studyId of lineUps.keys()) {
    for (const one of await itemsOfStudy(db, studyId, 'machine')) {
      machines.set(`${studyId} ${one.id}`, { uid: one.uid, name: one.name });
    }
  }
  // One machine has one hue, here and in the list of machines.
  const hues = (await listItems(db, 'machine')).map((one) => one.uid);
  const titles = new Map((await listStudies(db)).map((one) => [one.study_id, one.title]));
  const [first] = group;
  const latest = group.at(-1);
  const { dimensions, ladders, ladder_steps } = latest
    ? await listTables(db, latest.study_id, ['dimensions', 'ladders', 'ladder_steps'])
    : { dimensions: [], ladders: [], ladder_steps: [] };
  const isOwn = (row: { artefact_id: string }) => row.artefact_id === latest?.artefact.artefact_id;
  const ownFile = group.find((one) => one.file)?.file;
  return {
    thing,
    sheet: ownFile ? await sheetOfFile(app, ownFile) : null,
    identity: first?.identity ?? null,
    dimensions: dimensions.filter(isOwn).length,
    ladders: Object.fromEntries(
      ladders.filter(isOwn).map(({ ladder_id, name, unit }) => {
        const steps = ladder_steps.filter((row) => isOwn(row) && row.ladder_id === ladder_id);
        return [ladder_id, { name, unit, isMore: isHarderMore(steps) }];
      }),
    ),
    rows: rows.map((row): ShownStanding => {
      const { contenders, profiles, machines: own } = lineUps.get(row.study) ?? {};
      const contender = contenders?.find((one) => one.contender_id === row.contender);
      const profile = profiles?.find((one) => one.profile_id === contender?.profile_id);
      const machine = machines.get(`${row.study} ${contender?.machine_id ?? ''}`);
      const mark = contenderMarks(contenders ?? [], own ?? [], profiles ?? []).find(
        (one) => one.contender_id === row.contender,
      );
      return {
        ...row,
        study_id: row.study,
        study_title: titles.get(row.study) ?? '',
        machine: machine?.name ?? contender?.label ?? row.contender,
        machine_uid: machine?.uid ?? '',
        profile: profile?.name ?? '',
        isTuned: mark?.isTuned ?? false,
        hue: Math.max(0, hues.indexOf(machine?.uid ?? '')) % 8,
      };
    }),
    others: otherVersions(groups, group, thing),
  };
}

/** Artefacts of the same name that are another mesh. */
const otherVersions = (
  groups: readonly AnyArtefact[][],
  own: readonly AnyArtefact[],
  { name }: CatalogueItem,
): StandingsPage['others'] =>
  groups.flatMap((group) => {
    const [first] = group;
    if (!first || group === own || first.artefact.name !== name) return [];
    const prints = group.reduce((sum, one) => sum + one.prints, 0);
    return [{ uid: first.thing, name, version: first.artefact.version, prints }];
  });

/** Where every machine stands on the artefact that most of all contenders printed. */
export async function mostPrinted(app: App): Promise<{
  artefact: string;
  uid: string;
  places: ReadonlyMap<string, { place: number; of: number }>;
} | null> {
  const all = await artefactGroups(app);
  const groups = all.filter((group) => group.some((one) => one.prints > 0));
  // Over most studies, of these the most prints.
  groups.sort(
    (a, b) =>
      new Set(b.map((one) => one.study_id)).size - new Set(a.map((one) => one.study_id)).size ||
      b.reduce((sum, one) => sum + one.prints, 0) - a.reduce((sum, one) => sum + one.prints, 0),
  );
  const [first] = groups[0] ?? [];
  if (!first) return null;
  const { rows, thing } = await pageOf(app, await findItem(app.db, first.thing), all);
  const known = rows.filter((row) => row.mae_mm.estimate !== null);
  const places = new Map<string, { place: number; of: number }>();
  known.forEach((row, at) => {
    if (!places.has(row.machine_uid))
      places.set(row.machine_uid, { place: at + 1, of: known.length });
  });
  return { artefact: thing.name, uid: thing.uid, places };
}
