import * as z from 'zod';
import { changeMesh, openMesh } from '../../../../../../../server/artefacts';
import {
  endpoint,
  fileAnswer,
  onlyMethods,
  operatorOf,
  param,
} from '../../../../../../../server/http/endpoint';
import { json, problem } from '../../../../../../../server/http/problem';

const TYPES: Readonly<Record<string, string>> = { '3mf': 'model/3mf', obj: 'model/obj' };

export const GET = endpoint(
  { says: 'The mesh of an artefact, as a file.', gives: { type: 'model/*' } },
  async (context) => {
    const artefact = param(context, 'artefact');
    const mesh = await openMesh(context.locals.app, param(context, 'study'), artefact);
    if (!mesh) return problem(404, 'This artefact has no mesh.');
    return fileAnswer(mesh.content, {
      'content-type': TYPES[mesh.ending] ?? 'model/stl',
      'content-disposition': `attachment; filename="${artefact}.${mesh.ending}"`,
    });
  },
);

const changeSchema = z.strictObject({ mesh: z.string().max(300) });

export const POST = endpoint(
  {
    says: 'Gives the artefact another mesh, sent before; once printed, that makes a new version.',
    content: changeSchema,
    example: { content: { mesh: 'meshes/clip.stl' } },
  },
  async (context, { mesh }) => {
    const who = operatorOf(context);
    return json(
      await changeMesh(
        context.locals.app,
        param(context, 'study'),
        param(context, 'artefact'),
        mesh,
        who,
      ),
    );
  },
);

export const ALL = onlyMethods('GET', 'POST');
