import { LARGEST_MESH_MB, storeMesh } from '../../../../../server/artefacts';
import { bytesOf } from '../../../../../server/http/content';
import { endpoint, onlyMethods, param, queryOf } from '../../../../../server/http/endpoint';
import { json } from '../../../../../server/http/problem';

export const POST = endpoint(
  {
    says:
      'Takes a mesh file as the content of the request. One that an artefact of the study has ' +
      'already is named instead of stored, unless the request asks for both.',
    file: 'model/*',
    query: {
      name: 'the name of the file',
      same: 'keep: stores a mesh that is here already once more',
    },
    gives: 201,
  },
  async (context) => {
    const tooLarge = `The mesh is over ${LARGEST_MESH_MB} MB: make it coarser.`;
    const content = await bytesOf(context, LARGEST_MESH_MB * 1024 * 1024, tooLarge);
    const name = queryOf(context, 'name') ?? 'part.stl';
    const evenIfSame = queryOf(context, 'same') === 'keep';
    return json(
      await storeMesh(context.locals.app, param(context, 'study'), name, content, evenIfSame),
      201,
    );
  },
);

export const ALL = onlyMethods('POST');
