import { outdatedPrints } from '../../model/ledger';
import { printHours } from '../../measures/reliability';
import { clopperPearson, poissonRate, sumOf, type Interval } from '../../statistics/stats';
import type { Print } from '../../model/study';

/** A machine's record of work, over whatever studies. */
export interface MachineRecord {
  prints: number;
  good: number;
  /** Hours printed, where they are known. */
  hours: number;
  metres: number;
  incidents: number;
  /** Share of successes, Clopper–Pearson. */
  success: Interval;
  /** Incidents in 100 hours, exact Poisson. */
  per_100_h: Interval;
  /** Prints of another firmware than the machine's today. */
  outdated: number;
}

/**
 * What a machine's prints and incidents came to.
 *
 * @param firmware the machine's today; null where it is not known
 * @param alpha intervals are 1 − alpha
 */
export function recordOf(
  prints: readonly Print[],
  incidents: number,
  firmware: string | null,
  alpha = 0.05,
): MachineRecord {
  const hours = sumOf(prints, (print) => printHours(print) ?? 0);
  const good = prints.filter((print) => print.outcome === 'success').length;
  return {
    prints: prints.length,
    good,
    hours,
    incidents,
    metres: sumOf(prints, (print) => print.filament_m ?? 0),
    success: clopperPearson(good, prints.length, alpha),
    per_100_h: poissonRate(incidents, hours / 100, alpha),
    outdated: outdatedPrints(prints, firmware).length,
  };
}
