import type { FairnessResult } from './finding';

/** What the check found of a pair on an artefact, as much of it as a mark needs. */
export interface FoundOnArtefact {
  contender: string;
  artefact_id: string;
  result: FairnessResult;
}

const RANK: readonly FairnessResult[] = ['clean', 'noted', 'confounded'];

/** The artefact of what a comparison rests on: `spire-pair` of `spire-pair/PLA`. */
export const artefactOf = (key: string): string => key.split('/')[0] ?? key;

/**
 * What the fairness check found of a contender on the artefacts that a figure rests on.
 *
 * @param on what the figure's comparison rests on; empty where it is everything
 */
export function foundOn<Found extends FoundOnArtefact>(
  fairness: readonly Found[],
  contender: string,
  on: readonly string[],
): Found[] {
  const artefacts = new Set(on.map(artefactOf));
  return fairness.filter(
    (row) =>
      row.contender === contender && (artefacts.size === 0 || artefacts.has(row.artefact_id)),
  );
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
