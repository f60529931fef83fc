import { medianOrNull } from '../../statistics/stats';
import type { Tables } from '../../model/study';

/** Who answers faster than this has hardly looked, s. */
export const HASTY_S = 2;

/** How fast the judges of a panel answered. */
export interface Pace {
  /** Seconds that half of the answers took less than; null where that is not known. */
  median_s: number | null;
  /** Whether the panel has no verdict: half of the answers came too fast, and its organiser has not looked at them. */
  isWithheld: boolean;
}

/** How fast a panel was answered, and whether that keeps it from a verdict. */
export function paceOf(
  { ballot_times, panel_notes }: Pick<Tables, 'ballot_times' | 'panel_notes'>,
  panelId: string,
): Pace {
  const own = ballot_times.filter((row) => row.panel_id === panelId);
  const isChecked = panel_notes.some(
    (row) => row.panel_id === panelId && row.what === 'pace-checked',
  );
  return paceFrom(
    own.map((row) => row.seconds),
    isChecked,
  );
}

/** The same from the seconds of the answers that count. */
export function paceFrom(seconds: readonly number[], isChecked: boolean): Pace {
  const median_s = medianOrNull(seconds);
  return { median_s, isWithheld: median_s !== null && median_s < HASTY_S && !isChecked };
}
