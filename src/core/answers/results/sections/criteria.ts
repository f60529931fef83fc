import { alphaOfEach } from '../../../statistics/compare';
import { priceEquipped } from '../../../measures/cost';
import type { CriterionEvidence, EvidenceOfCriteria } from '../../scorecard';
import { clopperPearson, mean, sumOf, zQuantile, type Interval } from '../../../statistics/stats';
import type { Machine } from '../../../model/study';
import { contenderIds, LINE_UP, type Section, type SectionContext } from '../section';

/** Everything that a scorecard can weigh, by criterion and contender. */
export const criteria: Section<'criteria'> = {
  name: 'criteria',
  needs: [...LINE_UP, 'equipment'],
  uses: [
    'accuracy',
    'surface',
    'pairs',
    'speed',
    'reliability',
    'cost',
    'waste',
    'noise',
    'aftercare',
    'setup',
    'ladders',
    'functions',
    'panels',
    'photo',
    'trials',
    'marks',
  ],
  usesReference: true,
  compute: (context) => {
    const found: Record<string, Record<string, CriterionEvidence>> = {};
    for (const contender of contenderIds(context.index)) {
      for (const [key, evidence] of evidenceOfContender(context, contender)) {
        (found[key] ??= {})[contender] = evidence;
      }
    }
    return found satisfies EvidenceOfCriteria;
  },
};

type Entry = readonly [string, CriterionEvidence];

/** A number without an interval. */
const plain = (key: string, value: number | null | undefined): Entry[] =>
  value == null ? [] : [[key, { value, low: null, high: null, z: 0, bound: null }]];

/** A figure with an interval that was made at a level of which `z` is the normal quantile. */
const figure = (key: string, interval: Interval | null | undefined, z: number): Entry[] =>
  interval?.estimate == null
    ? []
    : [
        [
          key,
          {
            value: interval.estimate,
            low: interval.low,
            high: interval.high,
            bound: null,
            z: interval.low === null && interval.high === null ? 0 : z,
          },
        ],
      ];

const beyond = (key: string, bound: CriterionEvidence['bound']): Entry => [
  key,
  { value: null, low: null, high: null, z: 0, bound },
];

function evidenceOfContender(context: SectionContext, contender: string): Entry[] {
  const { index, alpha, reference, resultOf } = context;
  const z = zQuantile(1 - alpha / 2);
  const machine = index.machines.get(index.contenders.get(contender)?.machine_id ?? '');
  const runs = resultOf('reliability')[contender];
  const care = Object.values(resultOf('aftercare')?.[contender] ?? {}).flatMap(
    (own) => own.minutes.estimate ?? [],
  );
  return [
    ...figure('accuracy_mm', resultOf('accuracy')?.[contender]?.mae_mm, z),
    ...plain('worst_mm', resultOf('accuracy')?.[contender]?.max_abs_mm),
    ...figure('surface', resultOf('surface')?.[contender]?.index, z),
    ...figure('time_index', resultOf('speed')[contender]?.time_index, timeLevel(context)),
    ...figure('success', runs?.without_operator.success, z),
    ...figure('incidents_per_100_h', runs?.without_operator.per_100_h, z),
    ...plain('standstill', runs?.all.downtime_share),
    ...plain('hands_min_per_100_h', runs?.all.hands_min_per_100_h),
    ...plain('cost_index', costIndex(context, contender, reference)),
    ...plain('waste_share', resultOf('waste')[contender]?.share),
    ...plain('aftercare_min', care.length > 0 ? mean(care) : null),
    ...limits(context, contender),
    ...Object.entries(resultOf('functions')?.[contender] ?? {}).flatMap(([key, own]) =>
      figure(
        `works:${key}`,
        clopperPearson(own.works, own.works + own.works_with_effort + own.fails, alpha),
        z,
      ),
    ),
    ...panels(context, contender, z),
    ...Object.entries(resultOf('photo')?.[contender] ?? {}).flatMap(([key, own]) =>
      figure(`photo:${key}`, own.figure, z),
    ),
    ...(machine ? evidenceOfMachine(context, machine, z) : []),
  ];
}

/** Figures that are a machine's, whatever profile it runs. */
function evidenceOfMachine(context: SectionContext, machine: Machine, z: number): Entry[] {
  const { resultOf } = context;
  const { machine_id } = machine;
  return [
    ...plain('noise_db', resultOf('noise')?.[machine_id]?.printing?.at_1m_db),
    ...plain('price', priceOf(context, machine, machine.price_paid ?? machine.price_list)),
    ...plain(
      'price_equipped',
      priceOf(context, machine, priceEquipped(context.index, machine).value),
    ),
    ...plain('setup_min', resultOf('setup')?.[machine_id]?.minutes),
    ...plain('build_l', buildLitres(machine)),
    ...Object.entries(resultOf('trials')?.[machine_id] ?? {}).flatMap(([feature, own]) =>
      figure(`trial:${feature}`, own.share, z),
    ),
    ...Object.entries(resultOf('marks')?.[machine_id] ?? {}).flatMap(([aspect, own]) =>
      plain(`mark:${aspect}`, own.value),
    ),
  ];
}

/** The normal quantile of the level of the time index: that of a family of comparisons. */
function timeLevel({ alpha, resultOf }: SectionContext): number {
  const rows = resultOf('pairs').ln_print_s ?? [];
  const made = rows.filter((row) => row.difference.low !== null).length;
  return zQuantile(1 - alphaOfEach(alpha, made) / 2);
}

/** Geometric mean, over the artefacts where both know it, of the cost of a good part over the reference's. */
function costIndex(
  { resultOf }: SectionContext,
  contender: string,
  reference: string | null,
): number | null {
  if (reference === null) return null;
  if (contender === reference) return 1;
  const [own, other] = [resultOf('cost')[contender] ?? {}, resultOf('cost')[reference] ?? {}];
  const ratios = Object.entries(own).flatMap(([artefact, { per_good_part }]) => {
    const theirs = other[artefact]?.per_good_part;
    return per_good_part && theirs ? [Math.log(per_good_part / theirs)] : [];
  });
  return ratios.length === 0 ? null : Math.exp(mean(ratios));
}

/** A price of a machine where it is in the study's currency, or in the one that all machines have. */
function priceOf({ index }: SectionContext, machine: Machine, price: number | null): number | null {
  const { meta, tables } = index.study;
  const currencies = new Set(tables.machines.map((row) => row.currency));
  const [only] = currencies;
  const currency = meta.cost?.currency ?? (currencies.size === 1 ? only : null);
  if (currency == null || machine.currency !== currency) return null;
  return price;
}

/** What fits into a machine, litres; of a delta the cylinder of its width. */
function buildLitres({
  build_x_mm: x,
  build_y_mm: y,
  build_z_mm: z,
  kinematics,
}: Machine): number | null {
  if (x === null || z === null) return null;
  if (kinematics === 'delta') return (Math.PI / 4) * (x / 100) ** 2 * (z / 100);
  return y === null ? null : (x / 100) * (y / 100) * (z / 100);
}

/** How far it gets on each ladder; to fail the easiest that was tried is known too. */
const limits = ({ resultOf }: SectionContext, contender: string): Entry[] =>
  Object.entries(resultOf('ladders')?.[contender] ?? {}).flatMap(([key, own]) => {
    if (own.limit !== null) return plain(`limit:${key}`, own.limit);
    const tried = sumOf(own.by_step, (step) => step.clear + step.effort + step.fail + step.broken);
    return tried > 0 ? [beyond(`limit:${key}`, 'fails')] : [];
  });

/** How it stands in each paired panel: by judge where that can be told. */
const panels = ({ resultOf }: SectionContext, contender: string, z: number): Entry[] =>
  Object.entries(resultOf('panels') ?? {}).flatMap(([panel, own]) => {
    const standing = own.kind === 'paired' ? own.abilities[contender] : undefined;
    if (!standing) return [];
    const key = `panel:${panel}`;
    if (standing.unbounded !== null) return [beyond(key, standing.unbounded)];
    return figure(key, standing.log_ability_by_judge ?? standing.log_ability, z);
  });
