import * as z from 'zod';
import { isPlainText } from './plain-text';
import { time } from './values';
import { REPORT_PARTS } from './report-parts';

const words = (limit: number) =>
  z
    .string()
    .max(limit, 'is too long')
    .refine(isPlainText, 'holds a control character: take it out');

/** How a study's report is made: by whom it is, what it leaves out and in which order it stands. */
export const reportSettingsSchema = z.looseObject({
  /** Who publishes it, as it is to stand on it. */
  author: words(200).nullable().optional(),
  /** How the machines were obtained and who paid, beyond what the line-up says. */
  disclosure: words(5000).nullable().optional(),
  /** The parts that it has, in their order. */
  parts: z
    .array(z.enum(REPORT_PARTS))
    .refine((parts) => new Set(parts).size === parts.length, 'names a part twice')
    .optional(),
  /** Whether initials, codes and names of files stand in it and in its data. */
  with_names: z.boolean().optional(),
  /** Whether photos are shown. */
  with_photos: z.boolean().optional(),
  /** When revisions of a study that is shown as an example were frozen, ISO 8601. */
  frozen: z.array(time()).max(20).optional(),
  /** Proposed sentences that somebody has thrown away. */
  thrown_away: z.array(words(400)).max(1000).optional(),
});

export type ReportSettings = z.infer<typeof reportSettingsSchema>;
