import * as z from 'zod';
import { randomBytes } from 'node:crypto';
import type { ReportModel, RevisionFigures } from '../../core/text/report';
import { execute, query, someRow, type Database } from '../database';
import { NotFoundError, RefusedError } from '../errors';
import { isUuid, transact, type Write } from '../write';

const REVISION_STATES = ['waiting', 'making', 'ready', 'failed'] as const;

/** A revision of a study's report, without its model and figures. */
const revisionRow = z.strictObject({
  number: z.number(),
  state: z.enum(REVISION_STATES),
  /** What is being done, and how much of all is done, 0…1. */
  step: z.string().nullable(),
  share: z.number(),
  message: z.string().nullable(),
  /** What could not be made, in words. */
  notes: z.array(z.string()),
  who: z.string().nullable(),
  asked_at: z.date(),
  /** The time as of which it is frozen; null for as the study stands. */
  until: z.string().nullable(),
  frozen_at: z.date().nullable(),
  published_at: z.date().nullable(),
  withdrawn_at: z.date().nullable(),
  withdrawn_because: z.string().nullable(),
});
export type Revision = z.infer<typeof revisionRow>;

/** A file of a revision. */
const reportFileRow = z.strictObject({ path: z.string(), bytes: z.number(), sha256: z.string() });
export type ReportFile = z.infer<typeof reportFileRow>;

const COLUMNS = `"number", state, step, share, message, notes, who, asked_at, until, frozen_at, published_at,
  withdrawn_at, withdrawn_because`;

/** The revisions of a study's report, the latest first. */
export const listRevisions = (db: Database, studyId: string): Promise<Revision[]> =>
  isUuid(studyId)
    ? query(
        db,
        revisionRow,
        `select ${COLUMNS} from report_revisions where study_id = $1 order by "number" desc`,
        [studyId],
      )
    : Promise.resolve([]);

/** One revision. @throws NotFoundError */
export async function findRevision(
  db: Database,
  studyId: string,
  number: number,
): Promise<Revision> {
  const [found] = isUuid(studyId)
    ? await query(
        db,
        revisionRow,
        `select ${COLUMNS} from report_revisions where study_id = $1 and "number" = $2`,
        [studyId, number],
      )
    : [];
  if (!found) throw new NotFoundError(`There is no report ${number} of this study.`);
  return found;
}

const findReportRow = z.strictObject({
  model: z.custom<ReportModel>().nullable(),
  figures: z.custom<RevisionFigures>().nullable(),
});

/** What a revision says; null while it is not made. */
export async function findReport(
  db: Database,
  studyId: string,
  number: number,
): Promise<{ model: ReportModel; figures: RevisionFigures } | null> {
  const [found] = await query(
    db,
    findReportRow,
    `select model, figures from report_revisions
     where study_id = $1 and "number" = $2 and state = 'ready'`,
    [studyId, number],
  );
  return found?.model && found.figures ? { model: found.model, figures: found.figures } : null;
}

const addRevisionRow = z.strictObject({ number: z.number() });

/**
 * Asks for the next revision; its number is found within the write.
 *
 * @param until the time as of which it is frozen; null for as the study stands when it is made
 *
 * @throws RefusedError while another one is being made
 */
export async function addRevision(
  { db, studyId, who }: Write,
  until: string | null = null,
): Promise<number> {
  const [busy] = await query(
    db,
    addRevisionRow,
    `select "number" from report_revisions where study_id = $1 and state in ('waiting', 'making')`,
    [studyId],
  );
  if (busy) throw new RefusedError(`Report ${busy.number} is being made already.`);
  const [added] = await query(
    db,
    addRevisionRow,
    `insert into report_revisions (study_id, "number", who, until)
     select $1, coalesce(max("number"), 0) + 1, $2, $3 from report_revisions where study_id = $1
     returning "number"`,
    [studyId, who, until],
  );
  await execute(
    db,
    `insert into report_addresses (study_id, secret) values ($1, $2) on conflict do nothing`,
    [studyId, randomBytes(18).toString('base64url')],
  );
  return added?.number ?? 1;
}

/**
 * Says how far a revision is.
 *
 * @param askedAt when it was asked for: another one may have its number by now
 * @throws NotFoundError where nobody wants it any more
 */
export async function setRevisionStep(
  db: Database,
  studyId: string,
  number: number,
  askedAt: Date,
  step: string,
  share: number,
): Promise<void> {
  const found = await query(
    db,
    someRow,
    `update report_revisions set state = 'making', step = $4, share = $5
     where study_id = $1 and "number" = $2 and asked_at = $3 and state in ('waiting', 'making')
     returning 1 as one`,
    [studyId, number, askedAt, step, share],
  );
  if (found.length === 0) throw new NotFoundError(`Report ${number} is not wanted any more.`);
}

/** Says why a revision could not be made. */
export const failRevision = (
  db: Database,
  studyId: string,
  number: number,
  message: string,
): Promise<void> =>
  execute(
    db,
    `update report_revisions set state = 'failed', step = null, message = $3
     where study_id = $1 and "number" = $2`,
    [studyId, number, message.slice(0, 2000)],
  );

export interface MadeRevision {
  askedAt: Date;
  model: ReportModel;
  figures: RevisionFigures;
  notes: readonly string[];
  studyRevision: string;
  files: readonly ReportFile[];
}

/** Keeps a revision that was made: all of it at once. */
export const finishRevision = (
  db: Database,
  studyId: string,
  number: number,
  { askedAt, model, figures, notes, studyRevision, files }: MadeRevision,
): Promise<void> =>
  transact(db, async (bound) => {
    const found = await query(
      bound,
      someRow,
      `update report_revisions set state = 'ready', step = null, share = 1, message = null,
         frozen_at = $3, study_revision = $4, model = $5::jsonb, figures = $6::jsonb, notes = $7::json
       where study_id = $1 and "number" = $2 and asked_at = $8 returning 1 as one`,
      [
        studyId,
        number,
        model.frozen_at,
        studyRevision,
        JSON.stringify(model),
        JSON.stringify(figures),
        JSON.stringify(notes),
        askedAt,
      ],
    );
    if (found.length === 0) throw new NotFoundError(`Report ${number} is not wanted any more.`);
    await execute(bound, 'delete from report_files where study_id = $1 and "number" = $2', [
      studyId,
      number,
    ]);
    await execute(
      bound,
      `insert into report_files (study_id, "number", "path", bytes, sha256)
       select $1, $2, "path", bytes, sha256
       from jsonb_to_recordset($3::jsonb) as f("path" text, bytes bigint, sha256 text)`,
      [studyId, number, JSON.stringify(files)],
    );
  });

/** Has a revision that failed made again. @returns whether it had failed */
export async function askAgain(db: Database, studyId: string, number: number): Promise<boolean> {
  const found = await query(
    db,
    someRow,
    `update report_revisions set state = 'waiting', message = null, step = null, share = 0
     where study_id = $1 and "number" = $2 and state = 'failed' returning 1 as one`,
    [studyId, number],
  );
  return found.length > 0;
}

const unmadeRevisionsRow = z.strictObject({ study_id: z.string(), number: z.number() });

/** Revisions that nobody is making any more, of all studies. */
export const unmadeRevisions = (db: Database): Promise<{ study_id: string; number: number }[]> =>
  query(
    db,
    unmadeRevisionsRow,
    `select study_id, "number" from report_revisions r join studies s using (study_id)
     where state in ('waiting', 'making') and s.deleted_at is null`,
  );

const figuresBeforeRow = z.strictObject({ figures: z.custom<RevisionFigures>() });

/** The latest published revision before a number, with what it states; null where there is none. */
export async function figuresBefore(
  db: Database,
  studyId: string,
  number: number,
): Promise<RevisionFigures | null> {
  const [found] = await query(
    db,
    figuresBeforeRow,
    `select figures from report_revisions
     where study_id = $1 and "number" < $2 and state = 'ready'
       and published_at is not null and withdrawn_at is null
     order by "number" desc limit 1`,
    [studyId, number],
  );
  return found?.figures ?? null;
}

/** Makes a revision one that may be read by others. */
export const publishRevision = ({ db, studyId }: Write, number: number): Promise<void> =>
  execute(
    db,
    `update report_revisions set published_at = now()
     where study_id = $1 and "number" = $2 and published_at is null`,
    [studyId, number],
  );

/** Withdraws a revision: it stays where it is, and says so. */
export const withdrawRevision = (
  { db, studyId }: Write,
  number: number,
  because: string,
): Promise<void> =>
  execute(
    db,
    `update report_revisions set withdrawn_at = now(), withdrawn_because = $3
     where study_id = $1 and "number" = $2 and withdrawn_at is null`,
    [studyId, number, because],
  );

/** Throws a revision away that was never published; its number is free again. */
export const dropRevision = ({ db, studyId }: Write, number: number): Promise<void> =>
  execute(
    db,
    `delete from report_revisions where study_id = $1 and "number" = $2 and published_at is null`,
    [studyId, number],
  );

/** Under which addresses a study's report is read: by a secret, and by a name where it is open to all. */
const reportAddressRow = z.strictObject({ secret: z.string(), name: z.string().nullable() });
export type ReportAddress = z.infer<typeof reportAddressRow>;

export async function findAddress(db: Database, studyId: string): Promise<ReportAddress | null> {
  const [found] = await query(
    db,
    reportAddressRow,
    'select secret, name from report_addresses where study_id = $1',
    [studyId],
  );
  return found ?? null;
}

/**
 * Opens a study's report to all under a name, or closes it.
 *
 * @throws RefusedError where another report has the name
 */
export async function setReportName({ db, studyId }: Write, name: string | null): Promise<void> {
  if (name !== null) {
    const taken = await query(
      db,
      someRow,
      'select 1 from report_addresses where name = $1 and study_id <> $2',
      [name, studyId],
    );
    if (taken.length > 0) throw new RefusedError(`Another report is read at /r/${name}.`);
  }
  await execute(db, 'update report_addresses set name = $2 where study_id = $1', [studyId, name]);
}

const studyOfAddressRow = z.strictObject({ study_id: z.string() });

/** The study whose report is read under a name or a secret; null where there is none. */
export async function studyOfAddress(db: Database, address: string): Promise<string | null> {
  const [found] = await query(
    db,
    studyOfAddressRow,
    `select study_id from report_addresses a join studies s using (study_id)
     where (a.name = $1 or a.secret = $1) and s.deleted_at is null`,
    [address],
  );
  return found?.study_id ?? null;
}

/** A file of a revision; null where there is none at that path. */
export async function findReportFile(
  db: Database,
  studyId: string,
  number: number,
  path: string,
): Promise<ReportFile | null> {
  const [found] = await query(
    db,
    reportFileRow,
    `select "path", bytes::float8 as bytes, sha256 from report_files
     where study_id = $1 and "number" = $2 and "path" = $3`,
    [studyId, number, path],
  );
  return found ?? null;
}
