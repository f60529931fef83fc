import { checkWork } from '../access/tries';
import * as z from 'zod';
import { changesBetween, type RevisionChanges } from '../../core/text/report';
import { isPlainText } from '../../core/model/study';
import {
  addRevision,
  askAgain,
  dropRevision,
  findReport,
  findRevision,
  findStudy,
  listRevisions,
  publishRevision,
  setReportName,
  withdrawRevision,
  writeStudy,
  type Revision,
} from '../../data';
import { afterwards, type App } from '../app';
import { queueReport } from '../jobs';
import { RequestError } from '../http/problem';

/** A revision as it is shown: times as texts. */
export type RevisionSeen = Omit<
  Revision,
  'asked_at' | 'frozen_at' | 'published_at' | 'withdrawn_at'
> & {
  asked_at: string;
  frozen_at: string | null;
  published_at: string | null;
  withdrawn_at: string | null;
};

export const revisionSeen = (revision: Revision): RevisionSeen => ({
  ...revision,
  asked_at: revision.asked_at.toISOString(),
  frozen_at: revision.frozen_at?.toISOString() ?? null,
  published_at: revision.published_at?.toISOString() ?? null,
  withdrawn_at: revision.withdrawn_at?.toISOString() ?? null,
});

/** The revisions of a study's report, the latest first. @throws NotFoundError */
export async function revisionsOf(app: App, studyId: string): Promise<RevisionSeen[]> {
  await findStudy(app.db, studyId);
  return (await listRevisions(app.db, studyId)).map(revisionSeen);
}

/** Freezes the study as it stands: the next revision is made by a job. */
export async function freeze(
  app: App,
  studyId: string,
  who: string | null,
): Promise<{ number: number }> {
  await checkWork(app, 'reports');
  const number = await writeStudy(app.db, studyId, who, addRevision);
  afterwards(app, () => queueReport(app, { studyId, number }));
  return { number };
}

/** Names of reports in addresses. */
const nameSchema = z
  .string()
  .regex(/^[a-z0-9][a-z0-9-]{1,60}[a-z0-9]$/, 'is lower-case letters, digits and hyphens, 3 to 62');

export const revisionChangeSchema = z.union([
  /** Publishes it: to all under a name, or only to who has the secret address. */
  z.strictObject({ publish: z.literal(true), name: nameSchema.nullable() }),
  z.strictObject({
    withdraw: z
      .string()
      .trim()
      .min(3, 'say why, so that readers know')
      .max(2000)
      .refine(isPlainText, 'holds a control character: take it out'),
  }),
]);

/** Has a revision made again whose making failed. @throws RequestError where it did not fail */
export async function makeAgain(app: App, studyId: string, number: number): Promise<void> {
  await findStudy(app.db, studyId);
  await checkWork(app, 'reports');
  if (!(await askAgain(app.db, studyId, number))) {
    throw new RequestError(409, `Report ${number} has not failed: there is nothing to make again.`);
  }
  await queueReport(app, { studyId, number });
}

/** Publishes or withdraws a revision. @throws NotFoundError, RequestError */
export const changeRevision = (
  app: App,
  studyId: string,
  number: number,
  change: z.infer<typeof revisionChangeSchema>,
  who: string | null,
): Promise<void> =>
  writeStudy(app.db, studyId, who, async (write) => {
    const revision = await findRevision(write.db, studyId, number);
    // What is published is part of how far the study is.
    write.touch('report');
    if (revision.state !== 'ready') {
      throw new RequestError(
        409,
        `Report ${number} is not made: ${revision.message ?? 'wait for it'}.`,
      );
    }
    if ('withdraw' in change) {
      if (revision.published_at === null) {
        throw new RequestError(409, `Report ${number} was never published: throw it away instead.`);
      }
      return withdrawRevision(write, number, change.withdraw);
    }
    if (revision.withdrawn_at !== null) {
      throw new RequestError(409, `Report ${number} is withdrawn: freeze another one.`);
    }
    await publishRevision(write, number);
    return setReportName(write, change.name);
  });

/**
 * Throws a revision away that nobody has read; one that is being made is stopped by it. @throws
 * NotFoundError, RequestError
 */
export const throwRevisionAway = (
  app: App,
  studyId: string,
  number: number,
  who: string | null,
): Promise<void> =>
  writeStudy(app.db, studyId, who, async (write) => {
    const revision = await findRevision(write.db, studyId, number);
    if (revision.published_at !== null) {
      throw new RequestError(
        409,
        `Report ${number} is published: withdraw it instead of deleting it.`,
      );
    }
    await dropRevision(write, number);
  });

/** What is different between two revisions. @throws NotFoundError */
export async function compareRevisions(
  app: App,
  studyId: string,
  from: number,
  to: number,
): Promise<RevisionChanges> {
  const { db } = app;
  const [then, now] = await Promise.all([
    findReport(db, studyId, from),
    findReport(db, studyId, to),
  ]);
  if (!then || !now) throw new RequestError(404, 'One of these reports is not there, or not made.');
  return changesBetween(then.figures, now.figures);
}
