import { z } from 'zod';
import { TABLES } from '../../../../../../core/study';
import { endPrint } from '../../../../../../data';
import { breachesOf } from '../../../../../../core/package';
import { app } from '../../../../../../server/app';
import { body, endpoint, operatorOf, param } from '../../../../../../server/http/endpoint';
import { timeIssues } from '../../../../../../server/rows-bench';
import { json, RequestError } from '../../../../../../server/http/problem';

const endedSchema = z.strictObject({
  print: TABLES.prints.row.strict(),
  specimens: z.array(TABLES.specimens.row.strict()).max(500),
});

/** Puts down how a print ended, with the parts that came off the plate. */
export const POST = endpoint(async (context) => {
  const { print, specimens } = await body(context, endedSchema);
  const [breach] = [
    ...breachesOf('prints', print),
    ...timeIssues(print).map(({ path, message }) => ({ column: path, message })),
  ];
  if (breach) {
    throw new RequestError(422, `${breach.column} ${breach.message}`, {
      issues: [{ path: breach.column, message: breach.message }],
    });
  }
  if (specimens.some((specimen) => specimen.print_id !== print.print_id)) {
    throw new RequestError(422, 'A specimen names another print.');
  }
  const study = param(context, 'study');
  return json(await endPrint(app().db, study, print, specimens, operatorOf(context)), 201);
});
