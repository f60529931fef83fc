import {
  dossierEntries,
  proposeFinding,
  toTestAgain,
  wearOf,
  type Again,
  type ClaimFigures,
  type DossierEntry,
  type ProposedFinding,
  type Wear,
} from '../../core/measures/dossier';
import { openContext, type Results } from '../../core/answers/results';
import { groupBy, type Row, type Study, type TableName } from '../../core/model/study';
import { outdatedPrints } from '../../core/model/ledger';
import {
  JOINED,
  joinedStudy,
  recordOf,
  type FactDifference,
  type MachineRecord,
} from '../../core/answers/workshop';
import {
  featuresOfMachines,
  findItem,
  listRowsBy,
  loadStudy,
  usesOfThings,
  type Merged,
  type CatalogueItem,
  type ItemUse,
} from '../../data';
import type { App } from '../app';
import { resultsOf } from '../results/results';
import { mostPrinted } from './standings';
import { mergedOf, thenAndToday } from './things';

/** A claim of the maker, with what a figure says of it. */
export interface LedgerClaim {
  claim: Row<'claims'>;
  /** Where it stands, and the version that was read. */
  study_id: string;
  row_version: number;
  /** What follows from figures; null where none knows it. */
  proposed: ProposedFinding | null;
}

/** Everything known of one machine over all studies. */
export interface MachineDossier {
  thing: CatalogueItem;
  record: MachineRecord;
  /** The studies that it is in, the one begun last first, each with its row there. */
  uses: {
    study_id: string;
    title: string;
    machine_id: string;
    from: string | null;
    to: string | null;
  }[];
  place: { place: number; of: number; artefact: string; uid: string } | null;
  entries: DossierEntry[];
  outdated: string[];
  again: Again[];
  setup: NonNullable<Results['setup']>[string] | null;
  steps: Row<'setup_steps'>[];
  checks: Row<'checks'>[];
  trials: {
    feature: string;
    rows: Row<'trials'>[];
    sum: NonNullable<Results['trials']>[string][string];
  }[];
  claims: LedgerClaim[];
  ability: {
    type: string;
    known: Results['ability'][string][string] | null;
    note: Row<'material_notes'> | null;
  }[];
  remarks: Row<'marks'>[];
  marks: Record<string, { n: number; value: number | null }>;
  noise: Row<'noise'>[];
  changes: { change: Row<'machine_changes'>; wear: Wear | null }[];
  enquiries: Row<'enquiries'>[];
  borrowed: Row<'borrowed'>[];
  /** Features of every machine that any are known of. */
  features: {
    uid: string;
    name: string;
    states: Record<string, { state: string; price: number | null }>;
  }[];
  then: { title: string; study_id: string; differences: FactDifference[] }[];
  merged: Merged[];
}

/** What a dossier is computed from. */
const TABLES: readonly TableName[] = [
  'machines',
  'contenders',
  'profiles',
  'materials',
  'artefacts',
  'zones',
  'prints',
  'incidents',
  'specimens',
  'inspections',
  'findings',
  'machine_changes',
  'noise',
  'claims',
  'setup_steps',
  'checks',
  'heat_ups',
  'trials',
  'marks',
  'features',
  'material_notes',
  'enquiries',
  'borrowed',
];

/** A machine's dossier over all studies. @throws NotFoundError */
export async function machineDossier(app: App, uid: string): Promise<MachineDossier> {
  const { db } = app;
  const thing = await findItem(db, uid);
  const uses = await usesOfThings(db, 'machine', thing.uid);
  const [ofUses, standings, features, then, merged, claims] = await Promise.all([
    Promise.all(
      uses.map(async ({ study_id, id: machineId }) => ({
        study: (await loadStudy(db, study_id, TABLES)).study,
        machineId,
      })),
    ),
    mostPrinted(app),
    featuresOfMachines(db),
    thenAndToday(app, thing),
    mergedOf(app, thing),
    claimsOf(app, uses),
  ]);
  const joined = joinedStudy(ofUses);
  const { setup, trials, ability, marks, noise } = sectionsOf(joined);
  const { tables } = joined;
  const firmware = typeof thing.facts.firmware === 'string' ? thing.facts.firmware : null;
  const figures = await claimFigures(app, thing, uses, noise?.[JOINED]?.printing?.at_1m_db ?? null);
  const notes = new Map(tables.material_notes.map((row) => [row.type, row]));
  const known = ability[JOINED] ?? {};
  const place = standings?.places.get(thing.uid);
  return {
    thing,
    then,
    merged,
    record: recordOf(tables.prints, tables.incidents.length, firmware),
    uses: uses.map(({ study_id, title, id }, at) => {
      const own = joined.tables.prints
        .filter((row) => row.print_id.startsWith(`${at}:`))
        .flatMap((row) => row.started_at ?? [])
        .sort((a, b) => Date.parse(a) - Date.parse(b));
      return { study_id, title, machine_id: id, from: own.at(0) ?? null, to: own.at(-1) ?? null };
    }),
    place:
      place && standings ? { ...place, artefact: standings.artefact, uid: standings.uid } : null,
    entries: dossierEntries(joined),
    outdated: outdatedPrints(tables.prints, firmware).map((one) => one.print_id),
    again: toTestAgain(joined, firmware),
    setup: setup?.[JOINED] ?? null,
    steps: tables.setup_steps,
    checks: tables.checks,
    trials: Object.entries(trials?.[JOINED] ?? {}).map(([feature, sum]) => ({
      feature,
      sum,
      rows: tables.trials.filter((row) => row.feature === feature),
    })),
    claims: claims.map((one) => ({ ...one, proposed: proposeFinding(one.claim, figures) })),
    ability: [...new Set([...Object.keys(known), ...notes.keys()])].map((type) => ({
      type,
      known: known[type] ?? null,
      note: notes.get(type) ?? null,
    })),
    remarks: tables.marks,
    marks: marks?.[JOINED] ?? {},
    noise: tables.noise,
    changes: wearOf(tables.machine_changes, tables.prints),
    enquiries: tables.enquiries,
    borrowed: tables.borrowed,
    features: [...groupBy(features, (one) => one.uid)].map(([own, rows]) => ({
      uid: own,
      name: rows[0]?.name ?? '',
      states: Object.fromEntries(
        rows.map(({ feature, state, price }) => [feature, { state, price }]),
      ),
    })),
  };
}

/** The claims that studies hold of a machine, each with where it can be changed. */
async function claimsOf(
  app: App,
  uses: readonly ItemUse[],
): Promise<Omit<LedgerClaim, 'proposed'>[]> {
  const found = uses.map(async ({ study_id, id }) => {
    const rows = await listRowsBy(app.db, study_id, 'claims', 'machine_id', id);
    return rows.map(({ row_version, ...claim }) => ({ claim, study_id, row_version }));
  });
  return (await Promise.all(found)).flat();
}

type Known = Pick<Results, 'setup' | 'trials' | 'ability' | 'marks' | 'noise'>;

function sectionsOf(joined: Study): Known {
  if (joined.tables.machines.length === 0) {
    return { setup: null, trials: null, ability: {}, marks: null, noise: null };
  }
  const { resultOf } = openContext(joined);
  return {
    setup: resultOf('setup'),
    trials: resultOf('trials'),
    ability: resultOf('ability'),
    marks: resultOf('marks'),
    noise: resultOf('noise'),
  };
}

/** What figures of all studies say that a claim can be held against. */
async function claimFigures(
  app: App,
  { facts }: CatalogueItem,
  uses: readonly ItemUse[],
  noise_db: number | null,
): Promise<ClaimFigures> {
  const number = (name: string) => (typeof facts[name] === 'number' ? facts[name] : null);
  const sizes = ['build_x_mm', 'build_y_mm', 'build_z_mm'].flatMap((name) => number(name) ?? []);
  const truest: NonNullable<ClaimFigures['accuracy_mm']>[] = [];
  const reaches: NonNullable<Results['reach']>[string][] = [];
  for (const { study_id, id } of uses) {
    const { accuracy, reach } = await resultsOf(app, { studyId: study_id, reference: null }, [
      'accuracy',
      'reach',
    ]);
    for (const row of await listRowsBy(app.db, study_id, 'contenders', 'machine_id', id)) {
      const mae = accuracy?.[row.contender_id]?.mae_mm;
      if (mae && mae.estimate !== null) truest.push({ ...mae, estimate: mae.estimate });
      const own = reach?.[row.contender_id];
      if (own) reaches.push(own);
    }
  }
  truest.sort((a, b) => a.estimate - b.estimate);
  const most = (values: (number | null | undefined)[]) => {
    const there = values.flatMap((value) => value ?? []);
    return there.length > 0 ? Math.max(...there) : null;
  };
  return {
    noise_db,
    accuracy_mm: truest[0] ?? null,
    price: number('price_paid'),
    build_mm: sizes.length === 3 ? Math.min(...sizes) : null,
    asked_mm_s: most(reaches.map((one) => one.commanded_max)),
    reached_mm_s: most(reaches.map((one) => one.reached_max)),
    reached_share: most(reaches.map((one) => one.claim?.share_within_5pct)),
  };
}
