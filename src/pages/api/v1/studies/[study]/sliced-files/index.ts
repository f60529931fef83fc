import * as z from 'zod';
import { isPlainText } from '../../../../../../core/study';
import {
  body,
  endpoint,
  onlyMethods,
  operatorOf,
  param,
} from '../../../../../../server/http/endpoint';
import { json } from '../../../../../../server/http/problem';
import { announceFile, slicedFilesOf } from '../../../../../../server/sliced-files';

const announcedSchema = z.strictObject({
  name: z.string().min(1).max(255).refine(isPlainText, 'holds a control character'),
  bytes: z.number().int().positive('the file is empty'),
  sha256: z.string().regex(/^[0-9a-f]{64}$/, 'must be a SHA-256 in 64 hexadecimal digits'),
});

/** All sliced files of a study. */
export const GET = endpoint(async (context) => json(await slicedFilesOf(param(context, 'study'))));

/** Announces a file: says whether it is there already, else from where on its bytes are wanted. */
export const POST = endpoint(async (context) => {
  const file = await body(context, announcedSchema);
  return json(await announceFile(param(context, 'study'), file, operatorOf(context)));
});

export const ALL = onlyMethods('GET', 'POST');
