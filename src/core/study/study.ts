import * as z from 'zod';
import { INTENTS } from './catalogues';
import { TABLE_NAMES, type Row, type TableName } from './tables';
import type { Settings } from './settings';
import { isPlainText } from './plain-text';
import { currency, id } from './values';

const orNull = <T extends z.ZodType>(inner: T) => inner.nullable().optional();

/** Sane ends of what a person types: nothing that can be is beyond them. */
const over0 = () =>
  z.number().positive('must be over 0').max(1e9, 'is beyond anything that can be');
const atLeast0 = () => z.number().nonnegative().max(1e9, 'is beyond anything that can be');
const words = (most: number) =>
  z.string().max(most, 'is too long').refine(isPlainText, 'holds a control character: take it out');

/** The smallest differences of interest: what would matter to who asks. */
export const smallestDifferenceSchema = z.object({
  accuracy_mm: orNull(over0()),
  surface: orNull(over0()),
  time_pct: orNull(over0()),
});

export const costSchema = z.object({
  currency: orNull(currency()),
  tariff_per_kwh: orNull(atLeast0()),
  wage_per_h: orNull(atLeast0()),
  lifetime_h: orNull(over0()),
});

/** How the run order is drawn. */
export const planSchema = z.object({
  seed: z.number().int().nonnegative().max(2_147_483_646),
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
  draws: z.number().int().positive().max(1_000_000).optional(),
  concentration: z.number().positive().max(1e9).optional(),
});

/** Our own object in `datapackage.json`. */
export const vergleichSchema = z.looseObject({
  format: z.literal(1, { error: 'must be 1' }),
  intent: z.enum(INTENTS, { error: `must be one of: ${INTENTS.join(', ')}` }),
  question: orNull(words(20_000)),
  reference: id(),
  smallest_difference: orNull(smallestDifferenceSchema),
  cost: orNull(costSchema),
  scorecard: orNull(scorecardSchema),
  plan: orNull(planSchema),
});

/** What a study is about: everything of it that is not a row of a table. */
export const studyMetaSchema = z.object({
  name: words(200).min(1),
  title: words(300).min(1),
  description: words(20_000).nullable(),
  created: words(100).nullable(),
  intent: z.enum(INTENTS),
  question: words(20_000).nullable(),
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
