import { z } from 'zod';
import { breachesOf } from '../../core/package';
import { tableSpec, TABLES, type AnyRow, type TableName } from '../../core/study';
import {
  findRow,
  inChange,
  insertRow,
  listFiles,
  listRows,
  tallyPrints,
  updateRow,
  type Transaction,
} from '../../data';
import { app } from '../app';
import { RequestError } from '../http/problem';

/** What belongs to an artefact, in an order in which each names only what is before it. */
const PARTS = [
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
  artefact: TABLES.artefacts.row.strict(),
  ...(Object.fromEntries(
    PARTS.map((table) => [table, z.array(tableSpec(table).row.strict()).max(500).default([])]),
  ) as unknown as Record<PartTable, z.ZodDefault<z.ZodArray<z.ZodObject>>>),
});

export type ArtefactContent = z.infer<typeof artefactContent>;

const mine = (row: AnyRow, artefactId: string): AnyRow => ({ ...row, artefact_id: artefactId });

/** Adds an artefact with all its rows, or nothing. @throws RequestError */
export async function keepArtefact(
  studyId: string,
  content: ArtefactContent,
  who: string | null,
): Promise<{ artefact_id: string }> {
  const { db } = app();
  const { artefact } = content;
  const artefactId = artefact.artefact_id;
  const row = { ...artefact, mesh_sha256: await hashOf(studyId, artefact.mesh) };
  checkWithin(content);
  await inChange(db, async (transaction) => {
    await insertRow(db, studyId, 'artefacts', row, who, transaction);
    for (const table of PARTS) {
      for (const part of content[table] as AnyRow[]) {
        await insertRow(db, studyId, table, mine(part, artefactId), who, transaction);
      }
    }
  });
  return { artefact_id: artefactId };
}

/** Places name what is there, and no row breaks the rules of its table. */
function checkWithin(content: ArtefactContent): void {
  const named = (table: PartTable, columns: readonly string[]) =>
    new Set(
      (content[table] as AnyRow[]).map((row) => columns.map((column) => row[column]).join('/')),
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
    for (const row of content[table] as AnyRow[]) {
      const [breach] = breachesOf(table, row);
      if (breach) throw new RequestError(422, `${table}: ${breach.column} ${breach.message}`);
    }
  }
}

async function hashOf(studyId: string, path: string | null): Promise<string | null> {
  if (path === null) return null;
  const file = (await listFiles(app().db, studyId)).find((one) => one.path === path);
  if (!file) throw new RequestError(422, 'mesh is not among the files of the study: send it first');
  return file.sha256;
}

/**
 * Gives an artefact another mesh. Where it was printed already, that is a new version: an artefact
 * of its own, with the dimensions, ladders and zones of the old one, so that results do not mix.
 */
export async function changeMesh(
  studyId: string,
  artefactId: string,
  mesh: string,
  who: string | null,
): Promise<{ artefact_id: string; isNewVersion: boolean }> {
  const { db } = app();
  const { row_version: version, ...artefact } = await findRow(db, studyId, 'artefacts', {
    artefact_id: artefactId,
  });
  const sha256 = await hashOf(studyId, mesh);
  const printed = [
    ...(await tallyPrints(db, studyId)),
    ...(await listRows(db, studyId, 'open_prints')),
  ];
  if (!printed.some((row) => row.artefact_id === artefactId)) {
    const change = { mesh, mesh_sha256: sha256 };
    await updateRow(db, studyId, 'artefacts', { artefact_id: artefactId }, change, version, who);
    return { artefact_id: artefactId, isNewVersion: false };
  }
  const all = await listRows(db, studyId, 'artefacts');
  const taken = new Set(all.map((row) => String(row.artefact_id)));
  const stem = artefactId.replace(/-v\d+$/, '');
  let number = 2;
  while (taken.has(`${stem}-v${number}`)) number += 1;
  const next = `${stem}-v${number}`;
  await inChange(db, async (transaction) => {
    const row = {
      ...artefact,
      artefact_id: next,
      version: String(number),
      mesh,
      mesh_sha256: sha256,
    };
    await insertRow(db, studyId, 'artefacts', row, who, transaction);
    await copyParts(studyId, artefactId, next, who, transaction);
  });
  return { artefact_id: next, isNewVersion: true };
}

/** Copies all that is looked at on an artefact; what is retired of it stays behind. */
async function copyParts(
  studyId: string,
  from: string,
  to: string,
  who: string | null,
  transaction: Transaction,
): Promise<void> {
  const { db } = app();
  const of = async (table: TableName) =>
    (await listRows(db, studyId, table, transaction)).filter((row) => row.artefact_id === from);
  const retired = new Set((await of('retired_dimensions')).map((row) => row.dimension_id));
  const named = ['dimension_id', 'side_a', 'side_b', 'diagonal_1', 'diagonal_2'];
  for (const table of PARTS) {
    for (const { row_version: _, ...row } of await of(table)) {
      // A square whose side is retired cannot be measured either.
      if (named.some((column) => column in row && retired.has(row[column] ?? null))) continue;
      await insertRow(db, studyId, table, mine(row, to), who, transaction);
    }
  }
}
