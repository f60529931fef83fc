import { addArtefact, artefactContent } from '../../../../../../server/artefacts';
import { endpoint, onlyMethods, operatorOf, param } from '../../../../../../server/http/endpoint';
import { json } from '../../../../../../server/http/problem';

export const POST = endpoint(
  {
    says: 'Adds an artefact with its dimensions, ladders and zones, all of it or nothing.',
    content: artefactContent,
    example: {
      content: {
        artefact: { artefact_id: 'clip', name: 'Clip' },
        dimensions: [
          {
            artefact_id: 'clip',
            dimension_id: 'width',
            name: 'width',
            axis: 'x',
            kind: 'external',
            nominal_mm: 20,
          },
        ],
      },
    },
    gives: 201,
  },
  async (context, content) => {
    return json(
      await addArtefact(context.locals.app, param(context, 'study'), content, operatorOf(context)),
      201,
    );
  },
);

export const ALL = onlyMethods('POST');
