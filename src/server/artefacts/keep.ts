import * as z from 'zod';
import { breachesOf } from '../../core/model/package';
import {
  idFrom,
  tableSpec,
  TABLES,
  type Row,
  type TableName,
  readRow,
  recordOf,
  rowsAsColumns,
  asColumns,
} from '../../core/model/study';
import {
  findFile,
  findRow,
  insertRow,
  isPrinted,
  listRows,
  listRowsBy,
  updateRow,
  writeStudy,
  type Write,
} from '../../data';
import type { App } from '../app';
import { RequestError } from '../http/problem';

/** What belongs to an artefact, in an order in which each names only what is before it. */
export const PARTS = [
  'dimensions',
  'dimension_places',
  'ladders',
  'ladder_steps',
  'ladder_places',
  'zones',
  'zone_places',
  'squares',
  'copy_places',
  'function_checks',
] as const satisfies readonly TableName[];

type PartTable = (typeof PARTS)[number];

/** An artefact with all that is looked at on it. */
export const artefactContent = z.strictObject({
  /** Without an id of its own it gets one that is made of its name. */
  artefact: TABLES.artefacts.row.partial({ artefact_id: true }).strict(),
  ...recordOf(PARTS, (table) =>
    z.array<z.ZodObject>(tableSpec(table).row.strict()).max(500).default([]),
  ),
});

export type ArtefactContent = z.infer<typeof artefactContent>;

/** A row of a part table as that of another artefact. */
const asOf = (table: PartTable, row: object, artefact_id: string): Row<PartTable> =>
  readRow(table, { ...row, artefact_id });

/** Adds an artefact with all its rows, or nothing. @throws RequestError */
export async function addArtefact(
  app: App,
  studyId: string,
  content: ArtefactContent,
  who: string | null,
): Promise<{ artefact_id: string }> {
  const { artefact } = content;
  checkWithin(content);
  return writeStudy(app.db, studyId, who, async (write) => {
    const mesh_sha256 = await hashOf(write, artefact.mesh);
    const artefact_id = artefact.artefact_id ?? (await freeId(write, artefact.name));
    await insertRow(write, 'artefacts', { ...artefact, artefact_id, mesh_sha256 });
    for (const table of PARTS) {
      for (const part of content[table])
        await insertRow(write, table, asOf(table, part, artefact_id));
    }
    return { artefact_id };
  });
}

/** An id made of a name that no artefact of the study has. */
async function freeId({ db, studyId }: Write, name: string): Promise<string> {
  const all = await listRows(db, studyId, 'artefacts');
  return idFrom(
    name,
    all.map((row) => row.artefact_id),
    'artefact',
  );
}

/** Places name what is there, and no row breaks the rules of its table. */
function checkWithin(content: ArtefactContent): void {
  const named = (table: PartTable, columns: readonly string[]) =>
    new Set(
      rowsAsColumns(content[table]).map((row) => columns.map((column) => row[column]).join('/')),
    );
  const pairs = [
    ['dimension_places', 'dimensions', ['dimension_id']],
    ['ladder_steps', 'ladders', ['ladder_id']],
    ['ladder_places', 'ladder_steps', ['ladder_id', 'step']],
    ['zone_places', 'zones', ['zone_id']],
  ] as const;
  for (const [table, target, columns] of pairs) {
    const there = named(target, columns);
    for (const name of named(table, columns)) {
      if (!there.has(name))
        throw new RequestError(422, `${table}: ${name} is not among the ${target}`);
    }
  }
  for (const table of PARTS) {
    for (const row of rowsAsColumns(content[table])) {
      const [breach] = breachesOf(table, row);
      if (breach) throw new RequestError(422, `${table}: ${breach.column} ${breach.message}`);
    }
  }
}

async function hashOf({ db, studyId }: Write, path: string | null): Promise<string | null> {
  if (path === null) return null;
  const file = await findFile(db, studyId, path);
  if (!file) throw new RequestError(422, 'mesh is not among the files of the study: send it first');
  return file.sha256;
}

/**
 * Gives an artefact another mesh. Where it was printed already, that is a new version: an artefact
 * of its own, with the dimensions, ladders and zones of the old one, so that results do not mix.
 */
export const changeMesh = (
  app: App,
  studyId: string,
  artefact_id: string,
  mesh: string,
  who: string | null,
): Promise<{ artefact_id: string; isNewVersion: boolean }> =>
  writeStudy(app.db, studyId, who, async (write) => {
    const { db } = write;
    const { row_version, ...artefact } = await findRow(db, studyId, 'artefacts', { artefact_id });
    const change = { mesh, mesh_sha256: await hashOf(write, mesh) };
    if (!(await isPrinted(db, studyId, artefact_id))) {
      await updateRow(write, 'artefacts', { artefact_id }, change, row_version);
      return { artefact_id, isNewVersion: false };
    }
    const all = await listRows(db, studyId, 'artefacts');
    const taken = new Set(all.map((row) => row.artefact_id));
    const stem = artefact_id.replace(/-v\d+$/, '').slice(0, 56);
    let number = 2;
    while (taken.has(`${stem}-v${number}`)) number += 1;
    const next = `${stem}-v${number}`;
    const version = String(number);
    // Another mesh is another thing.
    const own = { artefact_id: next, version, uid: null };
    await insertRow(write, 'artefacts', { ...artefact, ...change, ...own });
    await copyParts(write, artefact_id, next);
    return { artefact_id: next, isNewVersion: true };
  });

/** Copies all that is looked at on an artefact; what is retired of it stays behind. */
async function copyParts(write: Write, from: string, to: string): Promise<void> {
  const { db, studyId } = write;
  const gone = await listRowsBy(db, studyId, 'retired_dimensions', 'artefact_id', from);
  const retired = new Set<unknown>(gone.map((row) => row.dimension_id));
  const named = ['dimension_id', 'side_a', 'side_b', 'diagonal_1', 'diagonal_2'];
  for (const table of PARTS) {
    for (const stored of await listRowsBy(db, studyId, table, 'artefact_id', from)) {
      const { row_version: _, ...row } = stored;
      // A square whose side is retired cannot be measured either.
      const columns = asColumns(row);
      if (named.some((column) => column in columns && retired.has(columns[column]))) continue;
      await insertRow(write, table, asOf(table, row, to));
    }
  }
}
