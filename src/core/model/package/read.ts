import {
  columnsOf,
  TABLE_NAMES,
  tableOfFile,
  tableSpec,
  type Study,
  type TableName,
  quote,
  tablesOf,
} from '../study';
import {
  DESCRIPTOR,
  descriptorExtras,
  metaOf,
  readDescriptor,
  type Descriptor,
} from './descriptor';
import { FaultList, type FaultReport } from './fault';
import { HISTORY, readHistory, type HistoryEntry } from './history';
import { loadTable, type LoadedTable } from './loaded-table';
import { checkReferences, Lookup } from './references';
import { checkRules } from './rules';
import type { PackageSource } from './source';
import { checkSweep } from './sweep';

/** A package that was read without a fault. */
export interface ReadPackage {
  study: Study;
  /** Paths of all files that are not tables of the study: meshes, photos, sliced files, notes. */
  extraFiles: string[];
  /** What the descriptor holds besides what is known here. */
  descriptorExtras: Record<string, unknown>;
  /** How its rows came to be what they are, the oldest change first; empty where it does not say. */
  history: HistoryEntry[];
}

export interface ReadResult extends FaultReport {
  /** Null where there is any fault. */
  content: ReadPackage | null;
}

/** Reads and checks a study package, and finds all that is wrong with it at once. */
export async function readPackage(source: PackageSource): Promise<ReadResult> {
  const faults = new FaultList();
  for (const fault of source.faults) {
    faults.add(fault.file, fault.line, fault.column, fault.message);
  }
  if (!source.paths.includes(DESCRIPTOR)) {
    faults.add(DESCRIPTOR, 1, '-', 'is missing: a study package is a Data Package with this file');
  }
  const descriptor = source.paths.includes(DESCRIPTOR)
    ? readDescriptor(await source.read(DESCRIPTOR), faults)
    : null;
  const { files, broken } = findTables(source, descriptor, faults);
  const loaded = new Map<TableName, LoadedTable>();
  for (const name of TABLE_NAMES) {
    const file = files.get(name);
    if (file === undefined) continue;
    const table = loadTable(name, file, await source.read(file), faults);
    loaded.set(name, table);
    if (!table.usable) broken.add(name);
  }
  const lookup = new Lookup(loaded, descriptor?.vergleich.intent ?? null);
  checkReferences(lookup, broken, faults);
  checkRules(lookup, faults);
  checkReferenceContender(descriptor, lookup, broken, faults);
  if (descriptor && !broken.has('contenders')) checkSweep(descriptor, lookup, faults);
  const named = checkPaths(loaded, source, faults);
  const history = source.paths.includes(HISTORY)
    ? readHistory(await source.read(HISTORY), faults)
    : [];
  const tableFiles = new Set([...files.values(), HISTORY]);
  const extraFiles = source.paths.filter((path) => path !== DESCRIPTOR && !tableFiles.has(path));
  const listed = new Set(descriptor?.resources.map((resource) => resource.path));
  for (const path of extraFiles) {
    if (!named.has(path)) {
      const [hint, ofSeveral] = listed.has(path)
        ? ['holds no table that is known here', 'files hold no table that is known here']
        : ['is named nowhere', 'files are named nowhere'];
      faults.warn(
        { file: path, line: 1, column: '-', message: `${hint}: the file is kept, and not used` },
        { ofSeveral: `${ofSeveral} (they are kept, and not used)`, subject: path },
      );
    }
  }
  const report = faults.report();
  if (!faults.isEmpty || !descriptor) return { ...report, content: null };
  const study = studyOf(descriptor, loaded);
  const extras = descriptorExtras(descriptor, (path) => tableFiles.has(path));
  return { ...report, content: { study, extraFiles, descriptorExtras: extras, history } };
}

function findTables(
  source: PackageSource,
  descriptor: Descriptor | null,
  faults: FaultList,
): { files: Map<TableName, string>; broken: Set<TableName> } {
  const files = new Map<TableName, string>();
  const broken = new Set<TableName>();
  const there = new Set(source.paths);
  for (const resource of descriptor?.resources ?? []) {
    const name = tableOfFile(resource.path);
    if (!there.has(resource.path)) {
      faults.add(
        resource.path || DESCRIPTOR,
        1,
        '-',
        `is listed in ${DESCRIPTOR} and is not in the package`,
      );
      if (name) broken.add(name);
    } else if (name && files.has(name)) {
      faults.add(resource.path, 1, '-', `the table ${quote(name)} is listed twice`);
    } else if (name) files.set(name, resource.path);
  }
  for (const name of TABLE_NAMES) {
    const file = `${name}.csv`;
    if (files.has(name) || broken.has(name)) continue;
    if (there.has(file)) {
      files.set(name, file);
      if (descriptor) {
        const message = `is not listed in ${DESCRIPTOR}: it is read all the same`;
        faults.warn(
          { file, line: 1, column: '-', message },
          { ofSeveral: `tables are not listed in ${DESCRIPTOR}, and are read`, subject: file },
        );
      }
    } else if (tableSpec(name).required) {
      faults.add(file, 1, '-', `is missing: a study needs its ${tableSpec(name).title}`);
      broken.add(name);
    }
  }
  return { files, broken };
}

function checkReferenceContender(
  descriptor: Descriptor | null,
  lookup: Lookup,
  broken: ReadonlySet<TableName>,
  faults: FaultList,
): void {
  if (!descriptor || broken.has('contenders')) return;
  const { reference } = descriptor.vergleich;
  if (lookup.tables.get('contenders')?.keys.has(reference)) return;
  faults.add(
    DESCRIPTOR,
    1,
    '-',
    `vergleich.reference (${quote(reference)}) is not among the contenders (contenders.csv)`,
  );
}

/** Checks what paths name: one that leaves the package is a fault, one that is not there a warning. */
function checkPaths(
  loaded: ReadonlyMap<TableName, LoadedTable>,
  source: PackageSource,
  faults: FaultList,
): Set<string> {
  const named = new Set<string>();
  const there = new Set(source.paths);
  const leaves = (path: string): boolean =>
    path.split('/').some((_, at, parts) => source.leaving.has(parts.slice(0, at + 1).join('/')));
  for (const table of loaded.values()) {
    for (const column of columnsOf(table.name).filter((candidate) => candidate.cell === 'path')) {
      for (const row of table.rows) {
        const path = row.values[column.name];
        if (typeof path !== 'string') continue;
        named.add(path);
        if (leaves(path)) {
          faults.add(
            table.file,
            row.line,
            column.name,
            `${quote(path)} leads outside the package through a link: put the file itself there`,
          );
        } else if (!there.has(path)) {
          faults.warn(
            {
              file: table.file,
              line: row.line,
              column: column.name,
              message: `the file ${quote(path)} is not in the package`,
            },
            { ofSeveral: 'files are not in the package', subject: path },
          );
        }
      }
    }
  }
  return named;
}

function studyOf(descriptor: Descriptor, loaded: ReadonlyMap<TableName, LoadedTable>): Study {
  const rowOf = ({ values, extras }: LoadedTable['rows'][number]) =>
    extras ? { ...values, extras } : values;
  const tables = tablesOf((name) => loaded.get(name)?.rows.map(rowOf) ?? []);
  return { meta: metaOf(descriptor), tables, present: new Set(loaded.keys()) };
}
