import { useEffect, useRef, useState } from 'react';
import type { Card, EvidenceOfCriteria, Scorecard } from '../../core/answers/scorecard';
import type { ScorecardAnswer, ScorecardQuestion } from '../workers/scorecard';

/** A card filled in by a worker: always the latest one, never more than one at a time. */
export function useFilled(
  card: Card | null,
  evidence: EvidenceOfCriteria,
  contenders: readonly string[],
  seed: number,
): { filled: Scorecard | null; took: number | null } {
  const [answer, setAnswer] = useState<ScorecardAnswer | null>(null);
  const worker = useRef<Worker | null>(null);
  const state = useRef<{ isBusy: boolean; next: ScorecardQuestion | null; number: number }>({
    isBusy: false,
    next: null,
    number: 0,
  });
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
  useEffect(() => {
    const now = state.current;
    if (!card || !worker.current) return;
    now.number += 1;
    const question = { number: now.number, card, evidence, contenders, seed };
    if (now.isBusy) now.next = question;
    else {
      now.isBusy = true;
      worker.current.postMessage(question);
    }
  }, [card, evidence, contenders, seed]);
  return { filled: answer?.filled ?? null, took: answer?.took ?? null };
}
