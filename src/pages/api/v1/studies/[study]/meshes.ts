import { LARGEST_MESH_MB, storeMesh } from '../../../../../server/artefacts';
import {
  bytesOf,
  endpoint,
  onlyMethods,
  param,
  queryOf,
} from '../../../../../server/http/endpoint';
import { json } from '../../../../../server/http/problem';

/**
 * Takes a mesh file as the content of the request, its name as `?name=`. One that an artefact of the
 * study has already is not kept but named, unless the address says `&same=keep`.
 */
export const POST = endpoint(async (context) => {
  const tooLarge = `The mesh is over ${LARGEST_MESH_MB} MB: make it coarser.`;
  const content = await bytesOf(context, LARGEST_MESH_MB * 1024 * 1024, tooLarge);
  const name = queryOf(context, 'name') ?? 'part.stl';
  const evenIfSame = queryOf(context, 'same') === 'keep';
  return json(await storeMesh(param(context, 'study'), name, content, evenIfSame), 201);
});

export const ALL = onlyMethods('POST');
