import { z } from 'zod';
import { studyMetaSchema } from '../../../../../core/study';
import {
  deleteStudy,
  findRow,
  findStudy,
  metaOfRecord,
  NotFoundError,
  restoreStudy,
  updateStudy,
} from '../../../../../data';
import { app } from '../../../../../server/app';
import { body, endpoint, operatorOf, param } from '../../../../../server/http/endpoint';
import { json, RequestError } from '../../../../../server/http/problem';

const changeSchema = z.strictObject({
  version: z.number().int(),
  change: studyMetaSchema.partial().strict(),
});

/** What a study is about, with its version. */
export const GET = endpoint(async (context) => {
  const record = await findStudy(app().db, param(context, 'study'));
  return json({ ...metaOfRecord(record), row_version: record.version, revision: record.revision });
});

/** Changes what a study is about. */
export const PATCH = endpoint(async (context) => {
  const study = param(context, 'study');
  const { version, change } = await body(context, changeSchema);
  if (typeof change.reference === 'string') {
    await findRow(app().db, study, 'contenders', { contender_id: change.reference }).catch(
      (error: unknown) => {
        if (!(error instanceof NotFoundError)) throw error;
        throw new RequestError(422, `reference ${change.reference} is no contender of this study`);
      },
    );
  }
  const given = Object.fromEntries(
    Object.entries(change).filter(([, value]) => value !== undefined),
  );
  const record = await updateStudy(app().db, study, given, version, operatorOf(context));
  return json({ ...metaOfRecord(record), row_version: record.version });
});

/** Puts a study away, once its title is given; it can be brought back for 30 days. */
export const DELETE = endpoint(async (context) => {
  const study = param(context, 'study');
  const { title } = await body(context, z.strictObject({ title: z.string() }));
  const record = await findStudy(app().db, study);
  if (record.title !== title) {
    throw new RequestError(422, 'That is not the title of this study: nothing was deleted.');
  }
  await deleteStudy(app().db, study);
  return new Response(null, { status: 204 });
});

/** Brings a deleted study back. */
export const POST = endpoint(async (context) => {
  await body(context, z.strictObject({ action: z.literal('restore') }));
  await restoreStudy(app().db, param(context, 'study'));
  return new Response(null, { status: 204 });
});
