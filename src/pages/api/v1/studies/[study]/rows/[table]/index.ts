import { z } from 'zod';
import { findStudy, listRows } from '../../../../../../../data';
import { app } from '../../../../../../../server/app';
import { body, endpoint, operatorOf, param } from '../../../../../../../server/http/endpoint';
import { json } from '../../../../../../../server/http/problem';
import { addRow, tableOf } from '../../../../../../../server/rows';

/** All rows of a table of a study. */
export const GET = endpoint(async (context) => {
  const study = param(context, 'study');
  await findStudy(app().db, study);
  return json(await listRows(app().db, study, tableOf(param(context, 'table'))));
});

/** Adds a row. */
export const POST = endpoint(async (context) => {
  const row = await body(context, z.record(z.string(), z.unknown()));
  const study = param(context, 'study');
  const table = tableOf(param(context, 'table'));
  return json(await addRow(study, table, row, operatorOf(context)), 201);
});
