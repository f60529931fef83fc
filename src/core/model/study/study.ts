import { recordOf, isOneOf } from './records';
import * as z from 'zod';
import {
  FACTORS,
  INTENTS,
  LIGHTS,
  MARK_ASPECTS,
  PHOTO_MEASURES,
  TRIAL_FEATURES,
} from './catalogues';
import { TABLE_NAMES, type Row, type TableName } from './tables';
import type { Settings } from './settings';
import { isPlainText } from './plain-text';
import { reportSettingsSchema } from './report-settings';
import { currency, id } from './values';

const orNull = <T extends z.ZodType>(inner: T) => inner.nullable().optional();

/** Sane ends of what a person types: nothing that can be is beyond them. */
const over0 = () =>
  z.number().positive('must be over 0').max(1e9, 'is beyond anything that can be');
const atLeast0 = () => z.number().nonnegative().max(1e9, 'is beyond anything that can be');
const words = (limit: number) =>
  z
    .string()
    .max(limit, 'is too long')
    .refine(isPlainText, 'holds a control character: take it out');

const oneOf = (words: readonly string[]) => `(?:${words.join('|')})`;
const ID = '[A-Za-z0-9][A-Za-z0-9._-]{0,63}';

/** The name of a figure on photos: `<artefact>/<measure>/<light>`, of a feature with `/<feature>`. */
const PHOTO_FIGURE = `${ID}/${oneOf(PHOTO_MEASURES)}/${oneOf([...LIGHTS, 'unknown'])}(?:/.{1,300})?`;

/** The smallest differences of interest: what would matter to who asks. */
export const smallestDifferenceSchema = z
  .object({
    accuracy_mm: orNull(over0()),
    surface: orNull(over0()),
    time_pct: orNull(over0()),
    /** Points of the share of successes. */
    success_pct: orNull(over0()),
  })
  .catchall(orNull(over0()))
  .refine(
    (own) => Object.keys(own).every((key) => !key.includes(':') || PHOTO_KEY.test(key)),
    'a figure on photos is named photo:<artefact>/<measure>/<light>',
  );

const PHOTO_KEY = new RegExp(`^photo:${PHOTO_FIGURE}$`);

const costSchema = z.object({
  currency: orNull(currency()),
  tariff_per_kwh: orNull(atLeast0()),
  wage_per_h: orNull(atLeast0()),
  lifetime_h: orNull(over0()),
});

/** How the run order is drawn. */
const planSchema = z.object({
  seed: z.number().int().nonnegative().max(2_147_483_646),
  block_by: z.enum(['repeat', 'lot', 'day']),
  prints_per_day: z.number().int().positive().max(1000),
  /** How often each dimension of a specimen is read; once where it is not said. */
  readings: z.number().int().min(1).max(9).optional(),
});

/** The keys of criteria that are figures of every contender. */
const PLAIN_CRITERIA = [
  'accuracy_mm',
  'worst_mm',
  'surface',
  'time_index',
  'success',
  'incidents_per_100_h',
  'standstill',
  'hands_min_per_100_h',
  'cost_index',
  'waste_share',
  'noise_db',
  'price',
  'price_equipped',
  'aftercare_min',
  'setup_min',
  'build_l',
] as const;

const NAMED_CRITERIA = new RegExp(
  `^(?:limit:${ID}/${ID}|works:${ID}/.+|panel:${ID}|photo:${PHOTO_FIGURE}|` +
    `trial:${oneOf(TRIAL_FEATURES)}|mark:${oneOf(MARK_ASPECTS)})$`,
);

/** Whether a text is the key of a criterion that a scorecard can weigh. */
export const isCriterion = (key: string): boolean =>
  isOneOf(PLAIN_CRITERIA, key) || NAMED_CRITERIA.test(key);

const criterionKey = () =>
  z.string().refine(isCriterion, 'is no criterion that a scorecard can weigh');

/** `[[value, utility], …]`, at least two, strictly ascending in value, utility 0…1. */
const pointsSchema = z
  .array(
    z.tuple([
      z.number(),
      z.number().min(0, 'utility is from 0 to 1').max(1, 'utility is from 0 to 1'),
    ]),
  )
  .min(2, 'a value curve needs at least two points')
  .refine(
    (points) => points.every(([value], at) => at === 0 || value > (points[at - 1]?.[0] ?? 0)),
    'the values of a curve must ascend',
  );

export const scorecardSchema = z.looseObject({
  criteria: z
    .array(
      z.looseObject({
        key: criterionKey(),
        weight: z.number().nonnegative('a weight must not be below 0').max(1e9),
        points: pointsSchema,
      }),
    )
    .refine(
      (criteria) => criteria.some(({ weight }) => weight > 0),
      'at least one weight must be over 0',
    ),
  gates: z
    .array(
      z.looseObject({
        key: criterionKey(),
        op: z.enum(['>=', '<='], { error: 'must be >= or <=' }),
        value: z.number(),
      }),
    )
    .optional(),
  draws: z.number().int().positive().max(1_000_000).optional(),
  concentration: z.number().positive().max(1e9).optional(),
  name: words(300).min(1).optional(),
});

/** One setting in steps on one machine, from the safe end. */
export const sweepSchema = z.looseObject({
  setting: words(300).min(1),
  unit: orNull(words(60)),
  steps: z
    .array(z.looseObject({ contender_id: id(), value: z.number({ error: 'must be a number' }) }))
    .min(3, 'a sweep needs at least three steps')
    .refine(
      (steps) => isStrict(steps.map(({ value }) => value)),
      'the values must ascend, or descend, from step to step',
    )
    .refine(
      (steps) => new Set(steps.map((step) => step.contender_id)).size === steps.length,
      'a contender is listed twice among the steps',
    ),
});

/** Whether values ascend all the way, or descend all the way. */
function isStrict(values: readonly number[]): boolean {
  const turns = values.slice(1).map((value, at) => Math.sign(value - (values[at] ?? 0)));
  return turns.every((turn) => turn !== 0 && turn === turns[0]);
}

/** How a farm would run its machines. */
const farmSchema = z.looseObject({
  turnaround_s: orNull(atLeast0()),
  hours_per_day: orNull(over0()),
  long_print_h: orNull(over0()),
});

/** Our own object in `datapackage.json`. */
export const vergleichSchema = z.looseObject({
  format: z.literal(1, { error: 'must be 1' }),
  intent: z.enum(INTENTS, { error: `must be one of: ${INTENTS.join(', ')}` }),
  /** What a crossed study crosses machines with. */
  factor: orNull(z.enum(FACTORS, { error: `must be one of: ${FACTORS.join(', ')}` })),
  farm: orNull(farmSchema),
  question: orNull(words(20_000)),
  reference: id(),
  smallest_difference: orNull(smallestDifferenceSchema),
  cost: orNull(costSchema),
  scorecard: orNull(scorecardSchema),
  scorecards: orNull(
    z.array(
      scorecardSchema.refine(
        ({ name }) => name !== undefined,
        'a card for another use needs a name',
      ),
    ),
  ),
  sweep: orNull(sweepSchema),
  plan: orNull(planSchema),
  report: orNull(reportSettingsSchema),
});

/** All cards of a study: its own first, then those for other uses. */
export const cardsOf = ({
  scorecard,
  scorecards,
}: Pick<StudyMeta, 'scorecard' | 'scorecards'>): NonNullable<StudyMeta['scorecard']>[] => [
  ...(scorecard ? [scorecard] : []),
  ...(scorecards ?? []),
];

/** What a study is about: everything of it that is not a row of a table. */
export const studyMetaSchema = z.object({
  name: words(200).min(1),
  title: words(300).min(1),
  description: words(20_000).nullable(),
  created: words(100).nullable(),
  intent: z.enum(INTENTS),
  /** What a crossed study crosses machines with; the kind of profile where it is not said. */
  factor: z.enum(FACTORS).nullable().optional(),
  farm: farmSchema.nullable().optional(),
  question: words(20_000).nullable(),
  reference: id().nullable(),
  smallest_difference: smallestDifferenceSchema,
  cost: costSchema.nullable(),
  scorecard: scorecardSchema.nullable(),
  /** Cards for other uses, each with a name of its own. */
  scorecards: z.array(scorecardSchema).nullable().optional(),
  /** The steps of a sweep; of that intent only. */
  sweep: sweepSchema.nullable().optional(),
  plan: planSchema.nullable().optional(),
  /** How its report is made. */
  report: reportSettingsSchema.nullable().optional(),
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
  return recordOf<TableName, never[]>(TABLE_NAMES, () => []);
}
