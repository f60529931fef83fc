import { columnsOf, type TableName } from '../../core/model/study';
import { kindOfTable } from '../../core/answers/workshop';
import { execute, type Database } from '../database';

/** What a study is made of before anything is printed, each table after those that it names. */
const BEGINNING: readonly TableName[] = [
  'machines',
  'profiles',
  'profile_settings',
  'materials',
  'spools',
  'contenders',
  'artefacts',
  'dimensions',
  'retired_dimensions',
  'dimension_places',
  'ladders',
  'ladder_steps',
  'ladder_places',
  'zones',
  'zone_places',
  'squares',
  'copy_places',
  'function_checks',
  'instruments',
  'planned',
];

/** Columns that are of what was done, and not of what is planned. */
const LEFT: ReadonlySet<string> = new Set(['toolpath']);

/**
 * Copies what a study begins with (line-up and reference, parts with their meshes, instruments, plan) into another that
 * is empty, within a transaction. What was printed and found stays where it is.
 */
export async function copyBeginning(db: Database, from: string, to: string): Promise<void> {
  await execute(db, 'set constraints all deferred');
  for (const table of BEGINNING) {
    const columns = columnsOf(table)
      .map((column) => column.name)
      .filter((name) => !LEFT.has(name));
    const list = [...columns, ...(kindOfTable(table) ? ['thing'] : []), 'extras']
      .map((name) => `"${name}"`)
      .join(', ');
    await execute(
      db,
      `insert into ${table} (study_id, ${list})
       select $2, ${list} from ${table} where study_id = $1 order by ordinal`,
      [from, to],
    );
  }
  await execute(
    db,
    `update studies s set reference = o.reference from studies o
     where s.study_id = $2 and o.study_id = $1`,
    [from, to],
  );
  await execute(
    db,
    `insert into study_files (study_id, path, sha256)
     select $2, f.path, f.sha256 from study_files f
     where f.study_id = $1 and exists (
       select from artefacts a where a.study_id = $1 and a.mesh = f.path)`,
    [from, to],
  );
}
