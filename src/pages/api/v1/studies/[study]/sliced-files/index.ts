import { z } from 'zod';
import { findStudy, listSlicedFiles } from '../../../../../../data';
import { app } from '../../../../../../server/app';
import { body, endpoint, operatorOf, param } from '../../../../../../server/http/endpoint';
import { json } from '../../../../../../server/http/problem';
import { announce } from '../../../../../../server/sliced-files';

const announcedSchema = z.strictObject({
  name: z.string().min(1).max(255),
  bytes: z.number().int().positive('the file is empty'),
  sha256: z.string().regex(/^[0-9a-f]{64}$/, 'must be a SHA-256 in 64 hexadecimal digits'),
});

/** All sliced files of a study. */
export const GET = endpoint(async (context) => {
  const study = param(context, 'study');
  await findStudy(app().db, study);
  return json(await listSlicedFiles(app().db, study));
});

/** Announces a file: says whether it is there already, else from where on its bytes are wanted. */
export const POST = endpoint(async (context) => {
  const study = param(context, 'study');
  const file = await body(context, announcedSchema);
  await findStudy(app().db, study);
  return json(await announce(study, file, operatorOf(context)));
});
