import { columnsOf, type AnyRow } from '../../model/study';

/** The kinds of things that outlive a study. */
export const ITEM_KINDS = ['machine', 'profile', 'material', 'artefact', 'instrument'] as const;

export type ItemKind = (typeof ITEM_KINDS)[number];

interface KindSpec {
  /** The table of a study whose rows are such things as they were then. */
  table: 'machines' | 'profiles' | 'materials' | 'artefacts' | 'instruments';
  /** The column of its id. */
  id: string;
  /** Where its things are shown. */
  page: string;
}

export const KINDS: Readonly<Record<ItemKind, KindSpec>> = {
  machine: { table: 'machines', id: 'machine_id', page: 'machines' },
  profile: { table: 'profiles', id: 'profile_id', page: 'profiles' },
  material: { table: 'materials', id: 'material_id', page: 'materials' },
  artefact: { table: 'artefacts', id: 'artefact_id', page: 'artefacts' },
  instrument: { table: 'instruments', id: 'instrument_id', page: 'instruments' },
};

/** The kind whose things are rows of a table; null of any other table. */
export const kindOfTable = (table: string): ItemKind | null =>
  ITEM_KINDS.find((kind) => KINDS[kind].table === table) ?? null;

/** What a thing is known by: the values of its row that are not its place in a study. */
export type Facts = Record<string, string | number | null>;

/** Columns that name a thing within one study, or a file that lies there. */
const OF_THE_STUDY: ReadonlySet<string> = new Set(['uid', 'parent_id', 'mesh']);

/** The names of the facts of a kind, in the order of the table's columns. */
export const factNames = (kind: ItemKind): string[] =>
  columnsOf(KINDS[kind].table)
    .map(({ name }) => name)
    .filter((name) => name !== KINDS[kind].id && !OF_THE_STUDY.has(name));

/** The facts that a person types; hashes are made by the program. */
export const fieldNamesOf = (kind: ItemKind): string[] =>
  factNames(kind).filter((name) => name !== 'mesh_sha256');

/** The facts of a row. */
export const factsOf = (kind: ItemKind, row: AnyRow): Facts =>
  Object.fromEntries(factNames(kind).map((name) => [name, row[name] ?? null]));

/** What a thing is called. */
export function nameOfThing(kind: ItemKind, facts: Facts): string {
  if (kind !== 'material') return String(facts.name ?? kind);
  const { maker, type, colour, lot } = facts;
  const what = [[maker, type].filter(Boolean).join(' '), colour].filter(Boolean).join(', ');
  return lot ? `${what} · ${String(lot)}` : what;
}
