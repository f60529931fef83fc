import { endpoint, onlyMethods, operatorOf, param } from '../../../../../../server/http/endpoint';
import { json } from '../../../../../../server/http/problem';
import { setSetting, settingSchema } from '../../../../../../server/line-up/add';

export const PUT = endpoint(
  {
    says: 'Sets one setting of a profile, or makes it unknown.',
    content: settingSchema,
    example: { content: { profile_id: 'stock', key: 'speed_outer_mm_s', value: '120' } },
  },
  async (context, asked) => {
    return json(
      await setSetting(context.locals.app, param(context, 'study'), asked, operatorOf(context)),
    );
  },
);

export const ALL = onlyMethods('PUT');
