import * as z from 'zod';
import { changeMesh, openMesh } from '../../../../../../../server/artefacts';
import {
  body,
  endpoint,
  fileAnswer,
  onlyMethods,
  operatorOf,
  param,
} from '../../../../../../../server/http/endpoint';
import { json, problem } from '../../../../../../../server/http/problem';

const TYPES: Readonly<Record<string, string>> = { '3mf': 'model/3mf', obj: 'model/obj' };

/** The mesh of an artefact, as a file. */
export const GET = endpoint(async (context) => {
  const artefact = param(context, 'artefact');
  const mesh = await openMesh(param(context, 'study'), artefact);
  if (!mesh) return problem(404, 'This artefact has no mesh.');
  return fileAnswer(mesh.content, {
    'content-type': TYPES[mesh.ending] ?? 'model/stl',
    'content-disposition': `attachment; filename="${artefact}.${mesh.ending}"`,
  });
});

const changeSchema = z.strictObject({ mesh: z.string().max(300) });

/** Gives the artefact another mesh, sent before; once printed, that makes a new version. */
export const POST = endpoint(async (context) => {
  const { mesh } = await body(context, changeSchema);
  const who = operatorOf(context);
  return json(await changeMesh(param(context, 'study'), param(context, 'artefact'), mesh, who));
});

export const ALL = onlyMethods('GET', 'POST');
