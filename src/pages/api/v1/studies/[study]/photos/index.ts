import {
  endpoint,
  onlyMethods,
  operatorOf,
  param,
  queryOf,
} from '../../../../../../server/http/endpoint';
import { listAnswer } from '../../../../../../server/http/list';
import { done, json, RequestError } from '../../../../../../server/http/problem';
import {
  filePhotos,
  filingSchema,
  PHOTO_UPLOADS,
  photosData,
  removePhoto,
  toldSchema,
} from '../../../../../../server/photos';
import { announcedSchema, announceFile } from '../../../../../../server/uploads';

export const GET = endpoint(
  { isList: true, says: 'All photos of a study: filed ones and those that wait to be.' },
  async (context) =>
    listAnswer(
      context,
      (await photosData(context.locals.app, param(context, 'study'))).photos,
      (photo) => photo.path,
    ),
);

export const POST = endpoint(
  {
    says:
      'Announces a photo, with its specimen, view and light where known; answers whether it is there ' +
      'already, else from which byte on to send it.',
    content: announcedSchema.extend({ told: toldSchema.optional() }),
    example: {
      content: {
        name: 'top.jpg',
        bytes: 2104331,
        sha256: '9f86d081884c7d659a2feaa0c55ad015a3bf4f1b2b0b822cd15d6c15b0f00a08',
        told: { specimen_id: 'K7-004', view: 'top' },
      },
    },
  },
  async (context, file) => {
    const who = operatorOf(context);
    return json(
      await announceFile(context.locals.app, PHOTO_UPLOADS, param(context, 'study'), file, who),
    );
  },
);

export const PATCH = endpoint(
  {
    says: 'Assigns photos to a specimen, or adds facts about them.',
    content: filingSchema,
    example: {
      content: { paths: ['photos/top.jpg'], specimen_id: 'K7-004', view: 'top', light: 'flat' },
    },
  },
  async (context, filing) => {
    return json(
      await filePhotos(context.locals.app, param(context, 'study'), filing, operatorOf(context)),
    );
  },
);

export const DELETE = endpoint(
  {
    says: 'Takes a photo away from its specimen, or out of the study where it has none.',
    query: { path: 'the path of the photo in the study' },
    gives: 204,
  },
  async (context) => {
    const path = queryOf(context, 'path');
    if (!path) throw new RequestError(400, '?path= must name the photo.');
    await removePhoto(context.locals.app, param(context, 'study'), path, operatorOf(context));
    return done();
  },
);

export const ALL = onlyMethods('GET', 'POST', 'PATCH', 'DELETE');
