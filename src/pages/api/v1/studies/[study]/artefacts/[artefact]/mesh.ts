import { Readable } from 'node:stream';
import { z } from 'zod';
import { readFile } from '../../../../../../../data';
import { app } from '../../../../../../../server/app';
import { changeMesh, meshOfArtefact } from '../../../../../../../server/artefacts';
import { body, endpoint, operatorOf, param } from '../../../../../../../server/http/endpoint';
import { json, problem } from '../../../../../../../server/http/problem';

/** The mesh of an artefact, as a file. */
export const GET = endpoint(async (context) => {
  const artefact = param(context, 'artefact');
  const file = await meshOfArtefact(param(context, 'study'), artefact);
  if (!file) return problem(404, 'This artefact has no mesh.');
  const ending = file.path.split('.').at(-1) ?? 'stl';
  return new Response(Readable.toWeb(readFile(app().db, file.sha256)) as unknown as BodyInit, {
    headers: {
      'content-type': ending === '3mf' ? 'model/3mf' : ending === 'obj' ? 'model/obj' : 'model/stl',
      'content-disposition': `attachment; filename="${artefact}.${ending}"`,
    },
  });
});

const changeSchema = z.strictObject({ mesh: z.string().max(300) });

/** Gives the artefact another mesh, sent before; once printed, that makes a new version. */
export const POST = endpoint(async (context) => {
  const { mesh } = await body(context, changeSchema);
  const who = operatorOf(context);
  return json(await changeMesh(param(context, 'study'), param(context, 'artefact'), mesh, who));
});
