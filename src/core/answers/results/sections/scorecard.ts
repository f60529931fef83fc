import { fillScorecard, type Card } from '../../scorecard';
import type { StudyMeta } from '../../../model/study';
import { contenderIds, LINE_UP, type Section } from '../section';

/** How often a card is drawn, and how firm its weights are, where it does not say. */
const DRAWS = 20_000;
const CONCENTRATION = 50;

/** A card as it stands in a study, with what it does not say filled in. */
export const cardOf = (card: NonNullable<StudyMeta['scorecard']>): Card => ({
  name: card.name,
  criteria: card.criteria,
  gates: card.gates ?? [],
  draws: card.draws ?? DRAWS,
  concentration: card.concentration ?? CONCENTRATION,
});

/** The study's own scorecard, filled in. */
export const scorecard: Section<'scorecard'> = {
  name: 'scorecard',
  needs: [...LINE_UP, 'cards'],
  uses: ['criteria'],
  usesReference: true,
  compute: ({ index, card, seed, resultOf }) =>
    card && fillScorecard(cardOf(card), resultOf('criteria'), contenderIds(index), seed),
};
