import {
  columnsOf,
  TABLE_NAMES,
  type AnyRow,
  type Study,
  type TableName,
  type Tables,
  rowsAsColumns,
  tablesOf,
} from '../../model/study';

/** Which files of a study go with a report's data, and what they are called there. */
export interface PublishedFiles {
  /** From the path in the study to the path in the data. */
  names: ReadonlyMap<string, string>;
}

export interface PublishOptions {
  /** Whether initials, codes, extras and names of files stay as they are. */
  withNames: boolean;
}

/** The columns in which people are named, in whatever table. */
const PEOPLE: ReadonlySet<string> = new Set(['operator', 'operators', 'inspector', 'judge']);

/** By table: where a file lies when its name is left out. */
const FOLDERS: Readonly<Partial<Record<TableName, string>>> = {
  artefacts: 'meshes/mesh',
  incident_photos: 'photos/incident',
  planned: 'sliced/file',
  prints: 'sliced/file',
  open_prints: 'sliced/file',
};
const PHOTO = 'photos/photo';

/** The columns of a table that name people, or files. */
const peopleOf = (table: TableName): string[] =>
  columnsOf(table).flatMap(({ name }) => (PEOPLE.has(name) ? [name] : []));
const filesOf = (table: TableName): string[] =>
  columnsOf(table).flatMap(({ name, cell }) => (cell === 'path' ? [name] : []));

/** Prints that are running are nobody's evidence yet. */
const LEFT_OUT: readonly TableName[] = ['open_prints'];

/**
 * A study as it may be given to anyone: people are numbered, codes of specimens and columns that the
 * program does not know are left out, files have plain names. Numbers follow the order of the names, so
 * that every figure stays what it is.
 */
export function publishable(
  study: Study,
  { withNames }: PublishOptions,
): { study: Study; files: PublishedFiles } {
  const people = withNames ? null : numbered(namesIn(study.tables), 'person-');
  const paths = pathsIn(study.tables, withNames);
  const tables = tablesOf((table) => {
    const rows = LEFT_OUT.includes(table) ? [] : rowsAsColumns(study.tables[table]);
    return rows.map((row) => rowFor(table, row, people, paths));
  });
  const present = new Set([...study.present].filter((table) => !LEFT_OUT.includes(table)));
  const sliced = new Map(
    [...(study.sliced ?? [])].map(([path, settings]) => [paths.get(path) ?? path, settings]),
  );
  return {
    study: { ...study, tables, present, ...(study.sliced && { sliced }) },
    files: { names: paths },
  };
}

function rowFor(
  table: TableName,
  row: AnyRow,
  people: ReadonlyMap<string, string> | null,
  paths: ReadonlyMap<string, string>,
): object {
  const changed: Record<string, unknown> = { ...row };
  for (const column of filesOf(table)) {
    const path = row[column];
    if (typeof path === 'string') changed[column] = paths.get(path) ?? path;
  }
  if (!people) return changed;
  delete changed.extras;
  if (table === 'specimens') changed.code = null;
  for (const column of peopleOf(table)) {
    const name = row[column];
    if (typeof name !== 'string') continue;
    changed[column] =
      column === 'operators'
        ? name
            .split(',')
            .map((one) => people.get(one.trim()) ?? one)
            .join(',')
        : (people.get(name) ?? name);
  }
  return changed;
}

/** Everyone who is named, by all tables together. */
function namesIn(tables: Tables): string[] {
  const names = new Set<string>();
  for (const table of TABLE_NAMES) {
    for (const column of peopleOf(table)) {
      for (const row of rowsAsColumns(tables[table])) {
        const name = row[column];
        if (typeof name !== 'string') continue;
        for (const one of column === 'operators' ? name.split(',') : [name]) names.add(one.trim());
      }
    }
  }
  return [...names].sort();
}

/** New names in the order of the old ones; as wide as they must be to sort in that order. */
function numbered(names: readonly string[], stem: string): Map<string, string> {
  const width = String(names.length).length;
  return new Map(names.map((name, at) => [name, `${stem}${String(at + 1).padStart(width, '0')}`]));
}

/** From every file's path to its path in the data. */
function pathsIn(tables: Tables, withNames: boolean): Map<string, string> {
  const byStem = new Map<string, Set<string>>();
  for (const table of TABLE_NAMES) {
    const stem = FOLDERS[table] ?? PHOTO;
    for (const column of filesOf(table)) {
      for (const row of rowsAsColumns(tables[table])) {
        const path = row[column];
        if (typeof path === 'string') byStem.set(stem, (byStem.get(stem) ?? new Set()).add(path));
      }
    }
  }
  const found = new Map<string, string>();
  for (const [stem, paths] of byStem) {
    const fresh = numbered([...paths].sort(), `${stem}-`);
    for (const path of paths) {
      const ending = ENDING.exec(path)?.[0] ?? '';
      found.set(path, withNames ? path : `${fresh.get(path) ?? path}${ending.toLowerCase()}`);
    }
  }
  return found;
}

const ENDING = /(?:\.[A-Za-z0-9]{1,8}){1,2}$/;
