import { keepMesh, LARGEST_MESH_MB } from '../../../../../server/artefacts';
import { bytesOf, endpoint, param } from '../../../../../server/http/endpoint';
import { json } from '../../../../../server/http/problem';

/**
 * Takes a mesh file as the content of the request, its name as `?name=`. One that an artefact of the
 * study has already is not kept but named, unless the address says `&same=keep`.
 */
export const POST = endpoint(async (context) => {
  const tooLarge = `The mesh is over ${LARGEST_MESH_MB} MB: make it coarser.`;
  const content = await bytesOf(context, LARGEST_MESH_MB * 1024 * 1024, tooLarge);
  const asked = context.url.searchParams;
  const name = asked.get('name') ?? 'part.stl';
  const evenIfSame = asked.get('same') === 'keep';
  return json(await keepMesh(param(context, 'study'), name, content, evenIfSame), 201);
});
