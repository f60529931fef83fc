import { addDimension, dimensionContent } from '../../../../../../../server/artefacts';
import {
  endpoint,
  onlyMethods,
  operatorOf,
  param,
} from '../../../../../../../server/http/endpoint';
import { json } from '../../../../../../../server/http/problem';

export const POST = endpoint(
  {
    says: 'Adds a dimension with its place on the part; its id is made of its name.',
    content: dimensionContent,
    example: {
      content: {
        dimension: { name: 'width', axis: 'x', kind: 'external', nominal_mm: 20 },
        place: { x1_mm: 0, y1_mm: 5, z1_mm: 2, x2_mm: 20, y2_mm: 5, z2_mm: 2 },
      },
    },
    gives: 201,
  },
  async (context, content) => {
    const who = operatorOf(context);
    const [study, artefact] = [param(context, 'study'), param(context, 'artefact')];
    return json(await addDimension(context.locals.app, study, artefact, content, who), 201);
  },
);

export const ALL = onlyMethods('POST');
