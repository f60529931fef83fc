// @vitest-environment happy-dom
import { act, renderHook } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Card, EvidenceOfCriteria, Scorecard } from '../../core/answers/scorecard';
import { useFilled } from './use-filled';

interface Sent {
  number?: number;
  card?: Card;
  evidence?: EvidenceOfCriteria;
}

/** A worker that answers when a test wants it to. */
class SlowWorker {
  static made: SlowWorker[] = [];
  sent: Sent[] = [];
  onmessage?: (event: { data: { number: number; filled: Scorecard; took: number } }) => void;
  constructor() {
    SlowWorker.made.push(this);
  }
  postMessage(message: Sent) {
    this.sent.push(message);
  }
  isEnded = false;
  terminate() {
    this.isEnded = true;
  }
  /** Answers a card by its name. */
  answer(number: number) {
    const filled = { name: `filled ${number}` } as unknown as Scorecard;
    act(() => this.onmessage?.({ data: { number, filled, took: 1 } }));
  }
}

beforeEach(() => {
  SlowWorker.made = [];
  vi.stubGlobal('Worker', SlowWorker);
});
afterEach(() => vi.unstubAllGlobals());

const card = (weight: number): Card =>
  ({ criteria: [{ key: 'surface', weight, points: [] }] }) as unknown as Card;
const EVIDENCE: EvidenceOfCriteria = {};
const IDS = ['A', 'B'];

const opened = () => {
  const view = renderHook(
    ({ of, evidence }: { of: Card | null; evidence: EvidenceOfCriteria }) =>
      useFilled(of, evidence, IDS, 7),
    { initialProps: { of: card(1) as Card | null, evidence: EVIDENCE } },
  );
  return { ...view, worker: SlowWorker.made[0] as SlowWorker };
};

describe('a card that is dragged', () => {
  it('sends the evidence once, and then only cards', () => {
    const { rerender, worker } = opened();
    worker.answer(1);
    for (const weight of [2, 3, 4]) {
      rerender({ of: card(weight), evidence: EVIDENCE });
      worker.answer(weight);
    }
    expect(worker.sent.filter((one) => 'evidence' in one)).toHaveLength(1);
    expect(worker.sent[0]).toHaveProperty('evidence');
    expect(worker.sent.flatMap((one) => one.number ?? [])).toEqual([1, 2, 3, 4]);
    expect(worker.sent.slice(1).every((one) => Object.keys(one).length === 2)).toBe(true);
  });

  it('asks for the latest one only, and for one at a time', () => {
    const { rerender, worker, result, unmount } = opened();
    for (const weight of [2, 3, 4]) rerender({ of: card(weight), evidence: EVIDENCE });
    expect(worker.sent.flatMap((one) => one.number ?? [])).toEqual([1]);
    worker.answer(1);
    expect(worker.sent.flatMap((one) => one.number ?? [])).toEqual([1, 4]);
    expect(result.current.filled).toEqual({ name: 'filled 1' });
    worker.answer(4);
    expect(result.current.filled).toEqual({ name: 'filled 4' });
    unmount();
    expect(worker.isEnded).toBe(true);
  });

  it('is filled in again from other evidence, which goes before it', () => {
    const { rerender, worker } = opened();
    worker.answer(1);
    rerender({ of: card(1), evidence: { ...EVIDENCE } });
    expect(worker.sent.map((one) => ('evidence' in one ? 'ground' : one.number))).toEqual([
      'ground',
      1,
      'ground',
      2,
    ]);
  });
});
