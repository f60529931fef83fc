import { addArtefact, artefactContent } from '../../../../../../server/artefacts';
import {
  body,
  endpoint,
  onlyMethods,
  operatorOf,
  param,
} from '../../../../../../server/http/endpoint';
import { json } from '../../../../../../server/http/problem';

/** Adds an artefact with its dimensions, ladders and zones, all of it or nothing. */
export const POST = endpoint(async (context) => {
  const content = await body(context, artefactContent);
  return json(await addArtefact(param(context, 'study'), content, operatorOf(context)), 201);
});

export const ALL = onlyMethods('POST');
