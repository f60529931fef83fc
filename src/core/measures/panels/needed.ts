import { binomialUpperP } from '../../statistics/stats';
import type { PanelKind } from '../../model/study';

/** What a panel should be able to find. */
export interface PanelAim {
  /** How often it may find what is not there. */
  alpha: number;
  /** How often it should find what is there. */
  power: number;
  /**
   * How much there is to find: of a triangle or a guess the share of people who can really tell, of a paired
   * panel the share who prefer the one.
   */
  effect: number;
}

/** What is wanted of a panel where nobody says otherwise. */
export const usualAim = (kind: PanelKind, alpha = 0.05): PanelAim => ({
  alpha,
  power: 0.8,
  effect: kind === 'paired' ? 0.65 : 0.3,
});

/** What a right answer would be by guessing alone. */
export const chanceOf = (kind: PanelKind): number => (kind === 'triangle' ? 1 / 3 : 1 / 2);

/** So many ballots more have to have the power, too: it goes up and down with every single one. */
const HOLDS_FOR = 50;
const MOST_BALLOTS = 5000;

/** Share of right answers, or of the one that is preferred, where there is so much to find. */
const shareRight = (kind: PanelKind, effect: number): number =>
  kind === 'paired' ? effect : chanceOf(kind) + effect * (1 - chanceOf(kind));

/**
 * How many of so many ballots have to be right, at least, for its test to find something.
 *
 * @param known a number that is not more than the one looked for
 * @see ISO 4120, table A.1 (triangle)
 */
export function fewestRight(kind: PanelKind, ballots: number, alpha: number, known = 0): number {
  const level = kind === 'paired' ? alpha / 2 : alpha;
  let right = known;
  while (right <= ballots && binomialUpperP(right, ballots, chanceOf(kind)) > level) right += 1;
  return right;
}

/** How often the exact test of so many ballots finds what there is. */
function powerAt(kind: PanelKind, ballots: number, effect: number, fewest: number): number {
  if (fewest > ballots) return 0;
  const share = shareRight(kind, effect);
  const found = binomialUpperP(fewest, ballots, share);
  // Of pairs, the lesser one may be found to be the better, too.
  return kind === 'paired' ? found + binomialUpperP(fewest, ballots, 1 - share) : found;
}

/**
 * How often a panel of 1, 2 … `most` ballots finds what there is: the exact one-sided binomial test of a
 * triangle or a guess, the exact two-sided sign test of pairs.
 */
export function powerOfPanels(kind: PanelKind, most: number, aim: PanelAim): number[] {
  let fewest = 0;
  return Array.from({ length: most }, (_, at) => {
    fewest = fewestRight(kind, at + 1, aim.alpha, fewest);
    return powerAt(kind, at + 1, aim.effect, fewest);
  });
}

/**
 * The fewest ballots from which on the power holds; null where thousands are not enough.
 *
 * @see ISO 4120, table A.3, which gives the first number with the power, though the next one may lack it
 */
export function ballotsNeeded(kind: PanelKind, aim: PanelAim): number | null {
  let fewest = 0;
  let since: number | null = null;
  for (let ballots = 1; ballots <= MOST_BALLOTS + HOLDS_FOR; ballots += 1) {
    fewest = fewestRight(kind, ballots, aim.alpha, fewest);
    if (powerAt(kind, ballots, aim.effect, fewest) < aim.power) since = null;
    else {
      since ??= ballots;
      if (ballots - since >= HOLDS_FOR) return since;
    }
  }
  return null;
}
