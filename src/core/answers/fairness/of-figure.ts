import { partsOfStratum } from '../../model/study';
import type { FairnessResult } from './finding';

/** What the check found of a pair on a stratum, as much of it as a mark needs. */
export interface FoundOnArtefact {
  contender: string;
  artefact_id: string;
  /** Null where prints of all materials are taken together. */
  type?: string | null;
  result: FairnessResult;
}

const RANK: readonly FairnessResult[] = ['clean', 'noted', 'confounded'];

/**
 * What the fairness check found of a contender on the strata that a figure rests on.
 *
 * @param on what the figure's comparison rests on; empty where it is everything
 */
export function foundOn<Found extends FoundOnArtefact>(
  fairness: readonly Found[],
  contender: string,
  on: readonly string[],
): Found[] {
  const strata = on.map(partsOfStratum);
  const isOn = ({ artefact_id, type = null }: FoundOnArtefact) =>
    strata.some(
      (one) =>
        one.artefact_id === artefact_id &&
        (type === null || one.type === null || one.type === type),
    );
  return fairness.filter((row) => row.contender === contender && (on.length === 0 || isOn(row)));
}

/** The worst of what was found; null where nothing was. */
export const worstFound = <Found extends Pick<FoundOnArtefact, 'result'>>(
  found: readonly Found[],
): Found | null =>
  found.reduce<Found | null>(
    (worst, row) =>
      worst === null || RANK.indexOf(row.result) > RANK.indexOf(worst.result) ? row : worst,
    null,
  );
