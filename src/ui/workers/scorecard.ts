import {
  fillScorecard,
  type Card,
  type EvidenceOfCriteria,
  type Scorecard,
} from '../../core/answers/scorecard';

/** A card to be filled in; the number tells which answer is to which question. */
export interface ScorecardQuestion {
  number: number;
  card: Card;
  evidence: EvidenceOfCriteria;
  contenders: readonly string[];
  seed: number;
}

export interface ScorecardAnswer {
  number: number;
  filled: Scorecard;
  /** How long it took, ms. */
  took: number;
}

/** Web worker: fills in a scorecard, so that the page keeps up with the hand that drags. */
self.onmessage = ({ data }: MessageEvent<ScorecardQuestion>) => {
  const { number, card, evidence, contenders, seed } = data;
  const began = performance.now();
  const filled = fillScorecard(card, evidence, contenders, seed);
  const answer: ScorecardAnswer = { number, filled, took: performance.now() - began };
  self.postMessage(answer);
};
