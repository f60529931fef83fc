import { printKept } from '../../../../../../server/api/answers';
import * as z from 'zod';
import { TABLES } from '../../../../../../core/model/study';
import { endpoint, onlyMethods, operatorOf, param } from '../../../../../../server/http/endpoint';
import { json } from '../../../../../../server/http/problem';
import { endPrintOf } from '../../../../../../server/runs/end';

const endedSchema = z.strictObject({
  print: TABLES.prints.row.strict(),
  specimens: z.array(TABLES.specimens.row.strict()).max(500),
});

export const POST = endpoint(
  {
    says: 'Puts down how a print ended, with the parts that came off the plate.',
    gives: { status: 201, schema: printKept },
    content: endedSchema,
    example: {
      content: {
        print: {
          print_id: 'P-001',
          contender_id: 'a-stock',
          artefact_id: 'clip',
          material_id: 'pla',
          repeat: 1,
          started_at: '2026-03-02T08:08:19+01:00',
          ended_at: '2026-03-02T08:22:15+01:00',
          outcome: 'success',
          print_s: 647,
          filament_g: 5.98,
        },
        specimens: [{ specimen_id: 'K7-004', print_id: 'P-001', copy: 1 }],
      },
    },
  },
  async (context, { print, specimens }) => {
    const who = operatorOf(context);
    return json(
      await endPrintOf(context.locals.app, param(context, 'study'), print, specimens, who),
      201,
    );
  },
);

export const ALL = onlyMethods('POST');
