import { useEffect, useRef, useState } from 'react';
import type { Card, EvidenceOfCriteria, Scorecard } from '../../core/answers/scorecard';
import type { ScorecardAnswer, ScorecardGround, ScorecardQuestion } from '../workers/scorecard';

interface Asking {
  isBusy: boolean;
  next: ScorecardQuestion | null;
  number: number;
}

/**
 * A card filled in by a worker: always the latest one, never more than one at a time. The evidence, which
 * is by far the largest, goes to the worker when it has changed, not with each step of a drag.
 */
export function useFilled(
  card: Card | null,
  evidence: EvidenceOfCriteria,
  contenders: readonly string[],
  seed: number,
): { filled: Scorecard | null; took: number | null } {
  const [answer, setAnswer] = useState<ScorecardAnswer | null>(null);
  const worker = useRef<Worker | null>(null);
  const state = useRef<Asking>({ isBusy: false, next: null, number: 0 });
  useEffect(() => {
    const own = new Worker(new URL('../workers/scorecard.ts', import.meta.url), { type: 'module' });
    worker.current = own;
    const now = state.current;
    own.onmessage = ({ data }: MessageEvent<ScorecardAnswer>) => {
      setAnswer(data);
      now.isBusy = now.next !== null;
      if (now.next) own.postMessage(now.next);
      now.next = null;
    };
    return () => {
      own.terminate();
      worker.current = null;
      now.isBusy = false;
    };
  }, []);
  // Before the effect that asks: what is asked is answered from it.
  useEffect(() => {
    const ground: ScorecardGround = { evidence, contenders, seed };
    worker.current?.postMessage(ground);
  }, [evidence, contenders, seed]);
  useEffect(() => {
    const now = state.current;
    if (!card || !worker.current) return;
    now.number += 1;
    const question: ScorecardQuestion = { number: now.number, card };
    if (now.isBusy) now.next = question;
    else {
      now.isBusy = true;
      worker.current.postMessage(question);
    }
  }, [card, evidence, contenders, seed]);
  return { filled: answer?.filled ?? null, took: answer?.took ?? null };
}
