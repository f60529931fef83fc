import * as z from 'zod';
import { PART_NAMES } from '../../core/answers/results';
import { INTENTS, studyMetaSchema, TABLES } from '../../core/model/study';

/** What programs may rely on in answers. More may stand there; none of this is taken away. */

export const studyMade = z.object({ study_id: z.uuid() });

export const studiesRead = z.array(
  z.object({
    study_id: z.uuid(),
    name: z.string(),
    title: z.string(),
    intent: z.enum(INTENTS),
    question: z.string().nullable(),
    updated_at: z.string(),
    archived_at: z.string().nullable(),
    labels: z.array(z.string()),
    is_demo: z.boolean(),
    contenders: z.int(),
    prints: z.int(),
    readings: z.int(),
  }),
);

export const studyRead = studyMetaSchema.extend({ row_version: z.int(), revision: z.string() });

export const readingKept = TABLES.readings.row.extend({ reading_id: z.uuid() });

export const readingsRead = z.array(readingKept);

export const readingsKept = z.object({ kept: z.int() });

export const printKept = TABLES.prints.row.extend({
  row_version: z.int(),
  /** The parts that came off the plate, with the codes for their stickers. */
  specimens: z.array(z.object({ specimen_id: z.string(), code: z.string().nullable() })),
});

export const resultsStanding = z.object({
  /** Parts that are being made anew: what is read of them is older. */
  stale: z.array(z.enum(PART_NAMES)),
  /** The study's revision that the results are of. */
  revision: z.string(),
});

/** The part itself stands under its own name. */
export const resultsRead = resultsStanding.loose();
