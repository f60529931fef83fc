import { artefactContent, keepArtefact } from '../../../../../../server/artefacts';
import { body, endpoint, operatorOf, param } from '../../../../../../server/http/endpoint';
import { json } from '../../../../../../server/http/problem';

/** Adds an artefact with its dimensions, ladders and zones, all of it or nothing. */
export const POST = endpoint(async (context) => {
  const content = await body(context, artefactContent);
  return json(await keepArtefact(param(context, 'study'), content, operatorOf(context)), 201);
});
