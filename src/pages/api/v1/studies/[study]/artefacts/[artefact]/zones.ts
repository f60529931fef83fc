import { addZone, zoneContent } from '../../../../../../../server/artefacts';
import {
  endpoint,
  onlyMethods,
  operatorOf,
  param,
} from '../../../../../../../server/http/endpoint';
import { json } from '../../../../../../../server/http/problem';

export const POST = endpoint(
  {
    says: 'Adds a zone with its place on the part; its id is made of its name.',
    content: zoneContent,
    example: {
      content: {
        zone: { name: 'front face', weight: 1 },
        place: { side: 'front', u1_mm: 0, v1_mm: 0, u2_mm: 20, v2_mm: 10 },
      },
    },
    gives: 201,
  },
  async (context, content) => {
    const who = operatorOf(context);
    const [study, artefact] = [param(context, 'study'), param(context, 'artefact')];
    return json(await addZone(context.locals.app, study, artefact, content, who), 201);
  },
);

export const ALL = onlyMethods('POST');
