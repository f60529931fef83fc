import { withoutOperators } from '../reliability';
import { clopperPearson, mean, meanOrNull, sumOf, type Interval } from '../../statistics/stats';
import { groupBy, type Print, type StudyIndex, ALLOWANCE } from '../../model/study';
import { inspectedSpecimens, type InspectedSpecimen } from '../surface';

/** How a machine does with a type of material. */
export interface Ability {
  /** Attempts, without those that only the operator spoilt. */
  prints: number;
  good: number;
  /** Clopper–Pearson. */
  success: Interval;
  /** Plain mean of these prints' surface index; null where none was inspected. */
  surface: number | null;
  /** The defect of the largest mean grade over all zones looked at; null where nothing was found. */
  worst: { defect: string; grade: number } | null;
  notes: string[];
}

/** What every machine does with every type of material that it was tried with. */
export function abilityOfAll(
  index: StudyIndex,
  alpha: number,
): Record<string, Record<string, Ability>> {
  const { machines, prints } = index.study.tables;
  const inspected = groupBy(
    [...inspectedSpecimens(index).values()].flat(),
    ({ specimen }) => specimen.print_id,
  );
  const ofMachine = groupBy(
    prints,
    (print) => index.contenders.get(print.contender_id)?.machine_id ?? '',
  );
  return Object.fromEntries(
    machines.map(({ machine_id }) => {
      const byType = groupBy(ofMachine.get(machine_id) ?? [], (print) => index.typeOf(print));
      return [
        machine_id,
        Object.fromEntries(
          [...byType]
            .sort(([a], [b]) => (a < b ? -1 : 1))
            .map(([type, own]) => [type, abilityOf(index, own, inspected, alpha)]),
        ),
      ];
    }),
  );
}

function abilityOf(
  index: StudyIndex,
  all: readonly Print[],
  inspected: ReadonlyMap<string, readonly InspectedSpecimen[]>,
  alpha: number,
): Ability {
  const prints = withoutOperators(index, all);
  const good = prints.filter((print) => print.outcome === 'success').length;
  const seen = prints.map((print) => inspected.get(print.print_id) ?? []);
  const indices = seen.flatMap((specimens) => {
    const own = specimens.flatMap((one) => one.index ?? []);
    return own.length > 0 ? [mean(own)] : [];
  });
  const left = all.length - prints.length;
  return {
    prints: prints.length,
    good,
    success: clopperPearson(good, prints.length, alpha),
    surface: meanOrNull(indices),
    worst: worstOf(seen.flat()),
    notes: [
      ...(left > 0 ? [`spoilt by the operator, left out: ${left}`] : []),
      ...(indices.length === 0 ? ['surface: no part was inspected'] : []),
    ],
  };
}

/** The defect of the largest mean grade over the zones looked at; of equals the first by name. */
function worstOf(specimens: readonly InspectedSpecimen[]): Ability['worst'] {
  const zones = specimens.flatMap((one) => one.zones);
  const grades = groupBy(
    zones.flatMap((zone) => zone.defects),
    (one): string => one.defect,
  );
  const [worst] = [...grades]
    .map(([defect, own]) => ({
      defect,
      grade: sumOf(own, (one) => one.severity) / zones.length,
    }))
    .filter(({ grade }) => grade > 0)
    .sort((a, b) =>
      Math.abs(a.grade - b.grade) > ALLOWANCE ? b.grade - a.grade : a.defect < b.defect ? -1 : 1,
    );
  return worst ?? null;
}
