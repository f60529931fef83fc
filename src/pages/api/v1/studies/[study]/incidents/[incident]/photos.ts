import { Readable } from 'node:stream';
import { bytesOf, endpoint, operatorOf, param } from '../../../../../../../server/http/endpoint';
import { json, problem } from '../../../../../../../server/http/problem';
import {
  incidentPhoto,
  keepIncidentPhoto,
  LARGEST_PHOTO,
} from '../../../../../../../server/incident-photos';

/** Takes a photo of an incident, as the content of the request. */
export const PUT = endpoint(async (context) => {
  const content = await bytesOf(context, LARGEST_PHOTO, 'The photo is over 25 MB.');
  const study = param(context, 'study');
  const incident = param(context, 'incident');
  const kept = await keepIncidentPhoto(study, incident, content, null, operatorOf(context));
  return json(kept, 201);
});

/** A photo of an incident, by `?path=`. */
export const GET = endpoint(async (context) => {
  const path = context.url.searchParams.get('path') ?? '';
  const photo = await incidentPhoto(param(context, 'study'), param(context, 'incident'), path);
  if (!photo) return problem(404, 'There is no such photo.');
  return new Response(Readable.toWeb(photo.content) as unknown as BodyInit, {
    headers: { 'content-type': photo.type, 'cache-control': 'private, max-age=3600' },
  });
});
