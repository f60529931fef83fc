import { z } from 'zod';
import { TABLES } from '../core/study';

/** A reading as a client sends it, with the id that it gives it. */
export const readingSchema = TABLES.readings.row
  .omit({ superseded_at: true })
  .extend({ reading_id: z.uuid() })
  .strict();
