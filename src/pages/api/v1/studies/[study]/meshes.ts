import { keepMesh, LARGEST_MESH_MB } from '../../../../../server/artefacts';
import { bytesOf, endpoint, param } from '../../../../../server/http/endpoint';
import { json } from '../../../../../server/http/problem';

/** Takes a mesh file as the content of the request, its name as `?name=`; says what it shows. */
export const POST = endpoint(async (context) => {
  const tooLarge = `The mesh is over ${LARGEST_MESH_MB} MB: make it coarser.`;
  const content = await bytesOf(context, LARGEST_MESH_MB * 1024 * 1024, tooLarge);
  const name = context.url.searchParams.get('name') ?? 'part.stl';
  return json(await keepMesh(param(context, 'study'), name, content), 201);
});
