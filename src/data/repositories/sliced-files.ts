import * as z from 'zod';
import type { Settings } from '../../core/model/study';
import type { ToolpathFacts } from '../../core/toolpath';
import { asJson, execute, query, someRow, type Database } from '../database';
import { NotFoundError } from '../errors';
import { writeStudy, type Write } from '../write';

const SLICED_STATES = ['waiting', 'reading', 'read', 'failed'] as const;
export type SlicedState = (typeof SLICED_STATES)[number];

/** A sliced file of a study: what it is for, and how far its reading is. */
export interface SlicedFile {
  path: string;
  sha256: string;
  bytes: number;
  state: SlicedState;
  /** Share of the file that was read, 0…1. */
  read_share: number;
  contender_id: string | null;
  artefact_id: string | null;
  /** Whether a person has said what it is for. */
  is_confirmed: boolean;
  /** Why it could not be read. */
  message: string | null;
}

/** What of a file's facts a list shows. */
export interface SlicedSummary extends SlicedFile {
  time_s: number | null;
  annotated_time_s: number | null;
  filament_mm: number | null;
  filament_g: number | null;
  layers: number | null;
  commanded_max: number | null;
  reached_max: number | null;
  bad_line_count: number | null;
}

const COLUMNS = `f.path, f.sha256, s.bytes::float8 as bytes, f.state, f.read_share, f.contender_id,
  f.artefact_id, f.is_confirmed, f.message`;
const FROM = 'from sliced_files f join stored_files s using (sha256)';

const slicedSummaryRow = z.strictObject({
  time_s: z.number().nullable(),
  annotated_time_s: z.number().nullable(),
  filament_mm: z.number().nullable(),
  filament_g: z.number().nullable(),
  layers: z.number().nullable(),
  commanded_max: z.number().nullable(),
  reached_max: z.number().nullable(),
  bad_line_count: z.number().nullable(),
  path: z.string(),
  sha256: z.string(),
  bytes: z.number(),
  state: z.enum(SLICED_STATES),
  read_share: z.number(),
  contender_id: z.string().nullable(),
  artefact_id: z.string().nullable(),
  is_confirmed: z.boolean(),
  message: z.string().nullable(),
});

/** The sliced files of a study, by path. */
export const listSlicedFiles = (db: Database, studyId: string): Promise<SlicedSummary[]> =>
  query(
    db,
    slicedSummaryRow,
    `select ${COLUMNS},
       (facts->>'time_s')::float8 as time_s,
       (facts->'annotated'->>'time_s')::float8 as annotated_time_s,
       (facts->>'filament_mm')::float8 as filament_mm,
       (facts->>'filament_g')::float8 as filament_g,
       (facts->>'layers')::int as layers,
       (facts->'speed'->>'commanded_max')::float8 as commanded_max,
       (facts->'speed'->>'reached_max')::float8 as reached_max,
       (facts->>'bad_line_count')::int as bad_line_count
     ${FROM} where f.study_id = $1 order by f.path`,
    [studyId],
  );

const slicedFactsRow = z.strictObject({
  path: z.string(),
  sha256: z.string(),
  bytes: z.number(),
  state: z.enum(SLICED_STATES),
  read_share: z.number(),
  contender_id: z.string().nullable(),
  artefact_id: z.string().nullable(),
  is_confirmed: z.boolean(),
  message: z.string().nullable(),
  facts: z.custom<ToolpathFacts>().nullable(),
});

/** Files of a study with all that was read in them. Those not read have null. */
export async function slicedFacts(
  db: Database,
  studyId: string,
  paths?: readonly string[],
): Promise<(SlicedFile & { facts: ToolpathFacts | null })[]> {
  return query(
    db,
    slicedFactsRow,
    `select ${COLUMNS}, f.facts ${FROM} where f.study_id = $1
       ${paths ? 'and f.path in (select jsonb_array_elements_text($2::jsonb))' : ''} order by f.path`,
    [studyId, ...(paths ? [JSON.stringify(paths)] : [])],
  );
}

/** One sliced file. @throws NotFoundError */
export async function findSlicedFile(
  db: Database,
  studyId: string,
  path: string,
): Promise<SlicedFile & { facts: ToolpathFacts | null }> {
  const [found] = await slicedFacts(db, studyId, [path]);
  if (!found) throw new NotFoundError(`There is no sliced file ${path} in this study.`);
  return found;
}

const pathOfContentRow = z.strictObject({ path: z.string() });

/** The path of a study's file of this content, if there is one. */
export async function pathOfContent(
  db: Database,
  studyId: string,
  sha256: string,
): Promise<string | null> {
  const [found] = await query(
    db,
    pathOfContentRow,
    'select path from study_files where study_id = $1 and sha256 = $2 order by path limit 1',
    [studyId, sha256],
  );
  return found?.path ?? null;
}

/** Whether some study has stored this content already. */
export async function isStored(db: Database, sha256: string): Promise<boolean> {
  const found = await query(db, someRow, 'select 1 from stored_files where sha256 = $1', [sha256]);
  return found.length > 0;
}

/** What is known of what a sliced file is for. */
export interface KnownPurpose {
  contender_id: string | null;
  artefact_id: string | null;
  /** Whether a person has said so. */
  is_confirmed: boolean;
  /** What the file states, where that was looked up already. */
  settings?: Settings | null;
}

/** Puts a file of the study down as a sliced file that waits to be read. */
export const insertSlicedFile = (
  { db, studyId, who }: Pick<Write, 'db' | 'studyId' | 'who'>,
  path: string,
  purpose: KnownPurpose,
): Promise<void> =>
  execute(
    db,
    `insert into sliced_files
       (study_id, path, sha256, contender_id, artefact_id, is_confirmed, who, settings)
     select $1, path, sha256, $3, $4, $5, $6, $7::json from study_files
       where study_id = $1 and path = $2
     on conflict (study_id, path) do nothing`,
    [
      studyId,
      path,
      purpose.contender_id,
      purpose.artefact_id,
      purpose.is_confirmed,
      who,
      purpose.settings == null ? null : asJson(purpose.settings),
    ],
  );

/** Sets what a sliced file is for. */
export async function setPurpose(
  write: Write,
  path: string,
  purpose: Omit<KnownPurpose, 'settings'>,
): Promise<void> {
  await execute(
    write.db,
    `update sliced_files set contender_id = $3, artefact_id = $4, is_confirmed = $5
     where study_id = $1 and path = $2`,
    [write.studyId, path, purpose.contender_id, purpose.artefact_id, purpose.is_confirmed],
  );
  write.touch('sliced_files');
}

/** Puts down how far the reading of a file is, or that it must be read (again). */
export const setReading = (
  db: Database,
  studyId: string,
  path: string,
  state: SlicedState,
  share: number,
  message: string | null = null,
): Promise<void> =>
  execute(
    db,
    `update sliced_files set state = $3, read_share = $4, message = $5
     where study_id = $1 and path = $2`,
    [studyId, path, state, share, message],
  );

/** Sets how far the reading of a file is; one that comes when it has ended already changes nothing. */
export const setReadShare = (
  db: Database,
  studyId: string,
  path: string,
  share: number,
): Promise<void> =>
  execute(
    db,
    `update sliced_files set read_share = $3
     where study_id = $1 and path = $2 and state = 'reading'`,
    [studyId, path, share],
  );

const setFactsRow = z.strictObject({ is_confirmed: z.boolean(), is_same: z.boolean().nullable() });

/**
 * Sets what was read in a file, and what it is for where nobody has said so; where its settings or its
 * purpose are new, results are made anew.
 *
 * @param guessed what the file is taken to be for; null where a person has said it
 */
export const setFacts = (
  db: Database,
  studyId: string,
  path: string,
  facts: ToolpathFacts,
  guessed: Omit<KnownPurpose, 'settings' | 'is_confirmed'> | null,
  edition: string,
): Promise<void> =>
  writeStudy(db, studyId, null, async (write) => {
    const json = asJson(facts);
    const [before] = await query(
      write.db,
      setFactsRow,
      `select is_confirmed, facts::text = $3 as is_same from sliced_files
       where study_id = $1 and path = $2 for update`,
      [studyId, path, json],
    );
    if (guessed && before?.is_confirmed === false) {
      await setPurpose(write, path, { ...guessed, is_confirmed: false });
    }
    await execute(
      write.db,
      `update sliced_files set state = 'read', read_share = 1, message = null, facts = $3::json,
         settings = $4::json, edition = $5, read_at = now()
       where study_id = $1 and path = $2`,
      [studyId, path, json, asJson(facts.settings), edition],
    );
    // What is read in a file is evidence of speed, and its settings of fairness.
    if (before?.is_same !== true) write.touch('sliced_files');
  });

const unreadFilesRow = z.strictObject({
  study_id: z.string(),
  path: z.string(),
  state: z.enum(SLICED_STATES),
});

/**
 * Files that nobody has read to the end, that another edition has read, or that were read against
 * another claim or flow limit than their machine has now.
 */
export const unreadFiles = (
  db: Database,
  edition: string,
): Promise<{ study_id: string; path: string; state: SlicedState }[]> =>
  query(
    db,
    unreadFilesRow,
    `select f.study_id, f.path, f.state from sliced_files f
     join studies s using (study_id)
     left join contenders c on c.study_id = f.study_id and c.contender_id = f.contender_id
     left join machines m on m.study_id = f.study_id and m.machine_id = c.machine_id
     where s.deleted_at is null and (
       f.state in ('waiting', 'reading')
       or (f.state = 'read' and (
         f.edition <> $1
         or nullif(m.claimed_speed_mm_s, 0)
           is distinct from (f.facts->'claim'->>'claimed')::float8
         or (m.claimed_speed_mm_s > 0 and nullif(m.max_flow_mm3_s, 0)
           is distinct from (f.facts->'claim'->>'flow_limit_mm3_s')::float8)
       ))
     )`,
    [edition],
  );

/** Deletes a sliced file of the study; its content goes with the last file that holds it. */
export async function deleteSlicedFile(write: Write, path: string): Promise<void> {
  await execute(write.db, 'delete from study_files where study_id = $1 and path = $2', [
    write.studyId,
    path,
  ]);
  write.touch('sliced_files');
}

const estimateOfFileRow = z.strictObject({ estimate: z.number().nullable() });

/** How long a file's print is to take, s: by its own word, else by the motion model. */
export async function estimateOfFile(
  db: Database,
  studyId: string,
  path: string | null,
): Promise<number | null> {
  const [file] = await query(
    db,
    estimateOfFileRow,
    `select round(coalesce(facts->'annotated'->>'time_s', facts->>'time_s')::float8) as estimate
     from sliced_files where study_id = $1 and path = $2`,
    [studyId, path],
  );
  return file?.estimate ?? null;
}

const filamentOfFileRow = z.strictObject({
  filament_g: z.number().nullable(),
  filament_m: z.number().nullable(),
});

/** What a sliced file says of its print's filament: g and m; null where it says nothing. */
export async function filamentOfFile(
  db: Database,
  studyId: string,
  path: string | null,
): Promise<{ filament_g: number | null; filament_m: number | null }> {
  const [file] = await query(
    db,
    filamentOfFileRow,
    `select (facts->>'filament_g')::float8 as filament_g,
       (facts->>'filament_mm')::float8 / 1000 as filament_m
     from sliced_files where study_id = $1 and path = $2`,
    [studyId, path],
  );
  return file ?? { filament_g: null, filament_m: null };
}
