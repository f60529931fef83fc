import {
  fillScorecard,
  type Card,
  type EvidenceOfCriteria,
  type Scorecard,
} from '../../core/answers/scorecard';

/** What cards are filled in from: sent once, and again only where it has changed. */
export interface ScorecardGround {
  evidence: EvidenceOfCriteria;
  contenders: readonly string[];
  seed: number;
}

/** A card to be filled in from the ground that was sent last; the number tells which answer is to which. */
export interface ScorecardQuestion {
  number: number;
  card: Card;
}

export interface ScorecardAnswer {
  number: number;
  filled: Scorecard;
  /** How long it took, ms. */
  took: number;
}

let ground: ScorecardGround | null = null;

/** Web worker: fills in a scorecard, so that the page keeps up with the hand that drags. */
self.onmessage = ({ data }: MessageEvent<ScorecardGround | ScorecardQuestion>) => {
  if ('evidence' in data) {
    ground = data;
    return;
  }
  if (!ground) throw new Error('a card was sent before what it is filled in from');
  const began = performance.now();
  const filled = fillScorecard(data.card, ground.evidence, ground.contenders, ground.seed);
  const answer: ScorecardAnswer = {
    number: data.number,
    filled,
    took: performance.now() - began,
  };
  self.postMessage(answer);
};
