import type { Cost } from './cost';

/**
 * The cheapest of an artefact: the one whose estimate no other's interval reaches down to. An unknown interval
 * reaches everywhere; null where nobody is told apart, or there is nobody beside.
 */
export function cheapestOf(
  costs: Readonly<Record<string, Pick<Cost, 'per_good_part' | 'per_good_part_low'> | undefined>>,
): string | null {
  const known = Object.entries(costs).flatMap(([contender, cost]) =>
    cost?.per_good_part == null
      ? []
      : [{ contender, estimate: cost.per_good_part, low: cost.per_good_part_low }],
  );
  const [first, ...others] = known.sort((a, b) => a.estimate - b.estimate);
  if (!first || others.length === 0) return null;
  return others.every(({ low }) => low !== null && low > first.estimate) ? first.contender : null;
}
