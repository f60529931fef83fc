import { z } from 'zod';
import { INTENTS } from './catalogues';
import { TABLE_NAMES, type Row, type TableName } from './tables';
import type { Settings } from './settings';
import { currency, id } from './values';

const orNull = <T extends z.ZodType>(inner: T) => inner.nullable().optional();

/** The smallest differences of interest: what would matter to who asks. */
export const smallestDifferenceSchema = z.object({
  accuracy_mm: orNull(z.number().positive('must be over 0')),
  surface: orNull(z.number().positive('must be over 0')),
  time_pct: orNull(z.number().positive('must be over 0')),
});

export const costSchema = z.object({
  currency: orNull(currency()),
  tariff_per_kwh: orNull(z.number().nonnegative()),
  wage_per_h: orNull(z.number().nonnegative()),
  lifetime_h: orNull(z.number().positive()),
});

/** How the run order is drawn. */
export const planSchema = z.object({
  seed: z.number().int().nonnegative(),
  block_by: z.enum(['repeat', 'lot', 'day']),
  prints_per_day: z.number().int().positive().max(1000),
  /** How often each dimension of a specimen is read; once where it is not said. */
  readings: z.number().int().min(1).max(9).optional(),
});

export const scorecardSchema = z.looseObject({
  criteria: z.array(
    z.looseObject({
      key: z.string().min(1),
      weight: z.number().nonnegative(),
      points: z.array(z.tuple([z.number(), z.number()])).min(1),
    }),
  ),
  gates: z.array(z.looseObject({ key: z.string().min(1) })).optional(),
  draws: z.number().int().positive().optional(),
  concentration: z.number().positive().optional(),
});

/** Our own object in `datapackage.json`. */
export const vergleichSchema = z.looseObject({
  format: z.literal(1, { error: 'must be 1' }),
  intent: z.enum(INTENTS, { error: `must be one of: ${INTENTS.join(', ')}` }),
  question: orNull(z.string()),
  reference: id(),
  smallest_difference: orNull(smallestDifferenceSchema),
  cost: orNull(costSchema),
  scorecard: orNull(scorecardSchema),
  plan: orNull(planSchema),
});

/** What a study is about: everything of it that is not a row of a table. */
export const studyMetaSchema = z.object({
  name: z.string().min(1).max(200),
  title: z.string().min(1).max(300),
  description: z.string().max(20_000).nullable(),
  created: z.string().nullable(),
  intent: z.enum(INTENTS),
  question: z.string().max(20_000).nullable(),
  reference: id().nullable(),
  smallest_difference: smallestDifferenceSchema,
  cost: costSchema.nullable(),
  scorecard: scorecardSchema.nullable(),
  plan: planSchema.nullable().optional(),
});

export type StudyMeta = z.infer<typeof studyMetaSchema>;

export type Tables = { [Name in TableName]: Row<Name>[] };

/** One question, its line-up, its evidence: what `evaluate` turns into results. */
export interface Study {
  meta: StudyMeta;
  /** Every table, empty where the study has none. */
  tables: Tables;
  /** The tables that the study has, rows in them or not. */
  present: ReadonlySet<TableName>;
  /** The settings that sliced files state, by their path; a file that was not read is not here. */
  sliced?: ReadonlyMap<string, Settings>;
}

/** A set of tables without rows. */
export function emptyTables(): Tables {
  return Object.fromEntries(TABLE_NAMES.map((name) => [name, []])) as unknown as Tables;
}
