import { bytesOf } from '../../../../../../../server/http/content';
import {
  endpoint,
  fileAnswer,
  onlyMethods,
  operatorOf,
  param,
  queryOf,
} from '../../../../../../../server/http/endpoint';
import { json, problem } from '../../../../../../../server/http/problem';
import { LARGEST_PICTURE, openPicture, storePicture } from '../../../../../../../server/pictures';

export const PUT = endpoint(
  {
    says: 'Takes a photo of an incident, as the content of the request.',
    file: 'image/*',
    gives: 201,
  },
  async (context) => {
    const content = await bytesOf(context, LARGEST_PICTURE, 'The photo is over 25 MB.');
    const stored = await storePicture(
      context.locals.app,
      param(context, 'study'),
      'incident_photos',
      param(context, 'incident'),
      content,
      { taken_at: null },
      operatorOf(context),
    );
    return json(stored, 201);
  },
);

export const GET = endpoint(
  {
    says: 'A photo of an incident.',
    query: { path: 'the path of the photo in the study' },
    gives: { type: 'image/*' },
  },
  async (context) => {
    const path = queryOf(context, 'path') ?? '';
    const [study, incident] = [param(context, 'study'), param(context, 'incident')];
    const photo = await openPicture(context.locals.app, study, 'incident_photos', incident, path);
    if (!photo) return problem(404, 'There is no such photo.');
    return fileAnswer(photo.content, {
      'content-type': photo.type,
      'cache-control': 'private, max-age=3600',
      'content-security-policy': "default-src 'none'",
    });
  },
);

export const ALL = onlyMethods('PUT', 'GET');
