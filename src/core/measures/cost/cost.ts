import { printHours } from '../reliability';
import { percentile, seededDraws, sum, sumOf } from '../../statistics/stats';
import { groupBy, type Material, type Print, type StudyIndex, recordOf } from '../../model/study';
import { priceEquipped, upkeepPerHour, type Sum } from './equipped';
import { notWeighed } from './waste';

/** What all attempts of a contender at an artefact cost, in the study's currency. */
export interface Cost {
  /** Prints, the failed ones too. */
  attempts: number;
  /** Parts of prints that were a success; a print whose parts are not listed counts one. */
  good_copies: number;
  /** Filament, in the study’s currency. */
  material: number | null;
  /** Electricity, in the study’s currency. */
  energy: number | null;
  /** Wear of the machine by the hour, of its price as equipped, in the study’s currency. */
  machine: number | null;
  /** Spare parts by the hour, in the study’s currency. */
  upkeep: number | null;
  /** Hands on incidents, in the study’s currency. */
  hands: number | null;
  /** The sum of those five. */
  total: number | null;
  /** The total, failed attempts included, for each good part. */
  per_good_part: number | null;
  /** Ends of the bootstrap interval over prints; the upper is null where it has no bound. */
  per_good_part_low: number | null;
  per_good_part_high: number | null;
  /** What is not known, in words. */
  notes: string[];
}

const PARTS = ['material', 'energy', 'machine', 'upkeep', 'hands'] as const;

type Parts = Record<(typeof PARTS)[number], number | null>;

const BOOTSTRAP_DRAWS = 2000;

/** Cost of every contender at every artefact that it has attempted. */
export const costOfAll = (
  index: StudyIndex,
  alpha: number,
  seed: number,
): Record<string, Record<string, Cost>> =>
  Object.fromEntries(
    index.study.tables.contenders.map(({ contender_id }) => {
      const prints = index.printsOfContender.get(contender_id) ?? [];
      const byArtefact = groupBy(prints, (print) => print.artefact_id);
      return [
        contender_id,
        Object.fromEntries(
          [...byArtefact].map(([artefact, attempts]) => [
            artefact,
            costOf(index, attempts, alpha, seed),
          ]),
        ),
      ];
    }),
  );

/** The sum of values that are all known; null where one is not. */
function sumOfKnown(values: readonly (number | null)[]): number | null {
  const known = values.filter((value) => value !== null);
  return known.length < values.length ? null : sum(known);
}

function costOf(index: StudyIndex, prints: readonly Print[], alpha: number, seed: number): Cost {
  // Drawn anew in an order of their own, so that rows in another order give the same interval.
  const attempts = [...prints].sort((a, b) => (a.print_id < b.print_id ? -1 : 1));
  const notes = new Set<string>();
  const each = attempts.map((print) => partsOf(index, print, notes));
  const goods = attempts.map((print) => goodCopies(index, print));
  const totalOf = (part: keyof Parts): number | null =>
    sumOfKnown(each.map((parts) => parts[part]));
  const parts = recordOf(PARTS, totalOf);
  const isKnown = PARTS.every((part) => parts[part] !== null);
  const total = isKnown ? sumOf(PARTS, (part) => parts[part] ?? 0) : null;
  const good_copies = sum(goods);
  if (good_copies === 0) notes.add('no good part: no cost of one');
  const totals = each.map((own) => sumOf(PARTS, (part) => own[part] ?? 0));
  const ends =
    total === null || good_copies === 0
      ? { low: null, high: null }
      : bootstrap(totals, goods, alpha, seed);
  return {
    attempts: attempts.length,
    good_copies,
    ...parts,
    total,
    per_good_part: total !== null && good_copies > 0 ? total / good_copies : null,
    per_good_part_low: ends.low,
    per_good_part_high: ends.high,
    notes: [...notes, ...unknownCounts(index, attempts), ...notWeighed(attempts)],
  };
}

/** What one attempt cost, part by part; a part without its parameter is null and noted. */
function partsOf(index: StudyIndex, print: Print, notes: Set<string>): Parts {
  const cost = index.study.meta.cost ?? {};
  const machine = index.machines.get(index.contenders.get(print.contender_id)?.machine_id ?? '');
  const isForeign = (currency: string | null | undefined): boolean =>
    currency != null && cost.currency != null && currency !== cost.currency;
  const priced = (
    part: keyof Parts,
    price: number | null | undefined,
    currency: string | null | undefined,
    amount: (price: number) => number,
  ): number | null => {
    if (price == null) notes.add(`${part}: ${MISSING[part]} not known`);
    else if (isForeign(currency)) {
      notes.add(`${part}: priced in ${currency}, the study reckons in ${cost.currency}`);
    } else return amount(price);
    return null;
  };
  const hours = printHours(print) ?? 0;
  const lifetime = cost.lifetime_h ?? null;
  if (lifetime === null) notes.add('machine: lifetime not known');
  if (!index.study.present.has('incidents')) notes.add('hands: no incidents were kept');
  const hands_s = sum(
    (index.incidentsOfPrint.get(print.print_id) ?? []).map((row) => row.hands_s ?? 0),
  );
  const rates = machine && {
    price: priceEquipped(index, machine),
    upkeep: upkeepPerHour(index, machine),
  };
  for (const note of rates?.price.notes ?? []) notes.add(`machine: ${note}`);
  for (const note of rates?.upkeep.notes ?? []) notes.add(`upkeep: ${note}`);
  const byHour = (part: 'machine' | 'upkeep', sum: Sum | undefined, share: number) =>
    sum?.value == null
      ? null
      : sum.value === 0
        ? 0
        : priced(part, sum.value, machine?.currency, (price) => hours * price * share);
  const grams = gramsOf(index, print).map(({ material, filament_g }) =>
    priced(
      'material',
      material?.price_per_kg,
      material?.currency,
      (price) => ((filament_g ?? 0) * price) / 1000,
    ),
  );
  return {
    material: sumOfKnown(grams),
    energy: priced(
      'energy',
      cost.tariff_per_kwh,
      null,
      (tariff) => ((print.energy_wh ?? 0) / 1000) * tariff,
    ),
    machine: lifetime === null ? null : byHour('machine', rates?.price, 1 / lifetime),
    upkeep: byHour('upkeep', rates?.upkeep, 1),
    hands: index.study.present.has('incidents')
      ? priced('hands', cost.wage_per_h, null, (wage) => (hands_s / 3600) * wage)
      : null,
  };
}

const MISSING: Record<keyof Parts, string> = {
  material: 'price of the material',
  energy: 'tariff',
  machine: 'price',
  upkeep: 'price of the spares',
  hands: 'wage',
};

/** The grams of each material of a print. */
function gramsOf(
  index: StudyIndex,
  print: Print,
): { material: Material | undefined; filament_g: number | null }[] {
  const slots = index.materialsOfPrint.get(print.print_id) ?? [print];
  return slots.map(({ material_id, filament_g }) => ({
    material: index.materials.get(material_id),
    filament_g,
  }));
}

function goodCopies(index: StudyIndex, print: Print): number {
  if (print.outcome !== 'success') return 0;
  return Math.max(1, index.specimensOfPrint.get(print.print_id)?.length ?? 0);
}

/** How many attempts do not know what counts as 0 in the sums. */
function unknownCounts(index: StudyIndex, attempts: readonly Print[]): string[] {
  const incidents = attempts.flatMap((print) => index.incidentsOfPrint.get(print.print_id) ?? []);
  const counts: [string, number][] = [
    [
      'filament',
      attempts.filter((print) =>
        gramsOf(index, print).some(({ filament_g }) => filament_g === null),
      ).length,
    ],
    ['energy', attempts.filter((print) => print.energy_wh === null).length],
    ['hours', attempts.filter((print) => printHours(print) === null).length],
    ['hands of incidents', incidents.filter((row) => row.hands_s === null).length],
  ];
  return counts.flatMap(([what, count]) => (count > 0 ? [`${what} not known: ${count}`] : []));
}

/** Percentile interval of the cost of a good part, the attempts drawn anew with replacement. */
function bootstrap(
  totals: readonly number[],
  goods: readonly number[],
  alpha: number,
  seed: number,
): { low: number | null; high: number | null } {
  if (totals.length < 2) return { low: null, high: null };
  const draws = seededDraws(seed);
  const values = Array.from({ length: BOOTSTRAP_DRAWS }, () => {
    let total = 0;
    let good = 0;
    for (let drawn = 0; drawn < totals.length; drawn += 1) {
      const at = draws.below(totals.length);
      total += totals[at] ?? 0;
      good += goods[at] ?? 0;
    }
    return good > 0 ? total / good : Number.MAX_VALUE;
  });
  const bounded = (value: number) => (value < Number.MAX_VALUE / 1e6 ? value : null);
  return {
    low: bounded(percentile(values, alpha / 2)),
    high: bounded(percentile(values, 1 - alpha / 2)),
  };
}
