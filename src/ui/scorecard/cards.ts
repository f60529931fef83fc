import type { StudyMeta } from '../../core/model/study';

/** A card as a study keeps it. */
export type OwnCard = NonNullable<StudyMeta['scorecard']>;

/** What the first card is called where nobody named it. */
const UNNAMED = 'the first card';

export const nameOfCard = (card: OwnCard, at: number): string =>
  card.name ?? (at === 0 ? UNNAMED : `card ${at + 1}`);

/** Why a card cannot be filled in, in words; null where it can. */
export function cardFault({ criteria }: OwnCard): string | null {
  if (criteria.length === 0) return 'Nothing counts yet: add a criterion.';
  return criteria.some(({ weight }) => weight > 0)
    ? null
    : 'All weights are 0: at least one must count.';
}

/** A name that no card has yet. */
export function freeName(cards: readonly OwnCard[], wanted: string): string {
  const taken = new Set(cards.map(nameOfCard));
  let name = wanted;
  for (let number = 2; taken.has(name); number += 1) name = `${wanted} ${number}`;
  return name;
}
