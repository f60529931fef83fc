import { cardOf, fillScorecard } from '../../scorecard';
import { contenderIds, LINE_UP, type Section } from '../section';

/** The study's own scorecard, filled in. */
export const scorecard: Section<'scorecard'> = {
  name: 'scorecard',
  needs: [...LINE_UP, 'cards'],
  uses: ['criteria'],
  usesReference: true,
  compute: ({ index, card, seed, resultOf }) =>
    card && fillScorecard(cardOf(card), resultOf('criteria'), contenderIds(index), seed),
};
