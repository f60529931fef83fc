import * as z from 'zod';
import { PROFILE_KINDS } from '../../../../../core/model/study';
import { endpoint, onlyMethods, operatorOf, param } from '../../../../../server/http/endpoint';
import { json } from '../../../../../server/http/problem';
import { fillProfile } from '../../../../../server/line-up/profile-settings';

const fillSchema = z.strictObject({
  path: z.string().min(1),
  profile_id: z.string().min(1).optional(),
  new: z
    .strictObject({
      name: z.string().min(1).max(300),
      kind: z.enum(PROFILE_KINDS),
      parent_id: z.string().min(1).nullable(),
    })
    .optional(),
});

export const POST = endpoint(
  {
    says: 'Fills the settings of a profile, a new one too, in from a sliced file.',
    content: fillSchema,
    example: { content: { path: 'sliced/clip.gcode', profile_id: 'stock' } },
  },
  async (context, sent) => {
    const target = sent.new
      ? { new: sent.new }
      : sent.profile_id === undefined
        ? null
        : { profile_id: sent.profile_id };
    const study = param(context, 'study');
    return json(
      await fillProfile(context.locals.app, study, sent.path, target, operatorOf(context)),
    );
  },
);

export const ALL = onlyMethods('POST');
