import {
  body,
  endpoint,
  onlyMethods,
  operatorOf,
  param,
  queryOf,
} from '../../../../../../server/http/endpoint';
import { done, json, RequestError } from '../../../../../../server/http/problem';
import {
  filePhotos,
  filingSchema,
  PHOTO_UPLOADS,
  photosData,
  removePhoto,
} from '../../../../../../server/photos';
import { announcedSchema, announceFile } from '../../../../../../server/uploads';

/** All photos of a study: filed ones and those that wait to be. */
export const GET = endpoint(async (context) =>
  json((await photosData(param(context, 'study'))).photos),
);

/** Announces a photo: says whether it is there already, else from where on its bytes are wanted. */
export const POST = endpoint(async (context) => {
  const file = await body(context, announcedSchema);
  const who = operatorOf(context);
  return json(await announceFile(PHOTO_UPLOADS, param(context, 'study'), file, who));
});

/** Files photos under a specimen, or says more of them. */
export const PATCH = endpoint(async (context) => {
  const filing = await body(context, filingSchema);
  return json(await filePhotos(param(context, 'study'), filing, operatorOf(context)));
});

/** Takes the photo at `?path=` away from its specimen, or out of the study where it has none. */
export const DELETE = endpoint(async (context) => {
  const path = queryOf(context, 'path');
  if (!path) throw new RequestError(400, '?path= must name the photo.');
  await removePhoto(param(context, 'study'), path, operatorOf(context));
  return done();
});

export const ALL = onlyMethods('GET', 'POST', 'PATCH', 'DELETE');
