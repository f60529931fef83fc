import { specimenMeasurements } from '../../../../../../../data';
import { app } from '../../../../../../../server/app';
import { endpoint, param } from '../../../../../../../server/http/endpoint';
import { json } from '../../../../../../../server/http/problem';

/** The readings of a specimen that count, and what of it cannot be measured. */
export const GET = endpoint(async (context) =>
  json(await specimenMeasurements(app().db, param(context, 'study'), param(context, 'specimen'))),
);
