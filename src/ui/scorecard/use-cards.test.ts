// @vitest-environment happy-dom
import { act, cleanup, renderHook, waitFor } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { OwnCard } from './cards';
import { writesUnderWay } from '../kit/request';
import { useCards } from './use-cards';

interface Sent {
  version: number;
  change: { scorecard: OwnCard | null; scorecards: OwnCard[] | null };
}
let sent: Sent[];
let answer: (version: number) => Response | Promise<Response>;
/** Of each: whether it is sent though the page has gone. */
let outlives: (boolean | undefined)[];

const json = (content: object, status = 200) =>
  new Response(JSON.stringify(content), {
    status,
    headers: { 'content-type': 'application/json' },
  });
const card = (weight: number, name = 'bench'): OwnCard => ({
  name,
  criteria: [
    {
      key: 'price',
      weight,
      points: [
        [0, 1],
        [10, 0],
      ],
    },
  ],
});

beforeEach(() => {
  sent = [];
  outlives = [];
  answer = (version) => json({ row_version: version + 1 });
  vi.stubGlobal('fetch', (_: string, init: RequestInit) => {
    const content = JSON.parse(init.body as string) as Sent;
    sent.push(content);
    outlives.push(init.keepalive);
    return Promise.resolve(answer(content.version));
  });
});

// What a test left waiting is not sent in the next.
afterEach(cleanup);

const opened = () => renderHook(() => useCards('study', [card(1)], 7));
const weightOf = (cards: readonly OwnCard[]) => cards[0]?.criteria[0]?.weight;

describe('the cards of a study', () => {
  it('are kept by themselves a moment after the last change, once', async () => {
    const { result } = opened();
    for (const weight of [2, 3, 4]) act(() => result.current.change([card(weight)], 'drag'));
    expect(result.current.state).toBe('waiting');
    await waitFor(() => expect(result.current.state).toBe('kept'), { timeout: 3000 });
    expect(sent).toEqual([{ version: 7, change: { scorecard: card(4), scorecards: null } }]);
    act(() => result.current.change([card(5), card(1, 'farm')]));
    await waitFor(() => expect(sent).toHaveLength(2), { timeout: 3000 });
    // The next change is made from the version that the last one made.
    expect(sent[1]).toEqual({
      version: 8,
      change: { scorecard: card(5), scorecards: [card(1, 'farm')] },
    });
  });

  it('are waited for by a link that is followed before they are kept', async () => {
    const { result } = opened();
    act(() => result.current.change([card(4)]));
    // Nothing has been sent yet, and yet it is on its way.
    expect([sent.length, writesUnderWay()]).toEqual([0, 1]);
    act(() => result.current.change([card(5)]));
    expect(writesUnderWay()).toBe(1);
    await waitFor(() => expect(result.current.state).toBe('kept'), { timeout: 3000 });
    expect([sent.length, writesUnderWay()]).toEqual([1, 0]);
    act(() => result.current.change([card(6)]));
    act(() => result.current.change([card(0)]));
    // What cannot be kept is not waited for.
    await waitFor(() => expect(writesUnderWay()).toBe(0));
  });

  it('go back a step: a drag is one, whatever it passed on its way', () => {
    const { result } = opened();
    expect(result.current.canUndo).toBe(false);
    for (const weight of [2, 3, 4]) act(() => result.current.change([card(weight)], 'drag'));
    act(() => result.current.change([card(9)], 'another'));
    expect(weightOf(result.current.cards)).toBe(9);
    act(() => result.current.undo());
    expect(weightOf(result.current.cards)).toBe(4);
    act(() => result.current.undo());
    expect(weightOf(result.current.cards)).toBe(1);
    act(() => result.current.undo());
    expect(weightOf(result.current.cards)).toBe(1);
    expect(result.current.canUndo).toBe(false);
  });

  it('that cannot be filled in are not sent', async () => {
    const { result } = opened();
    act(() => result.current.change([card(0)]));
    await new Promise((resolve) => setTimeout(resolve, 900));
    expect(sent).toEqual([]);
    expect(weightOf(result.current.cards)).toBe(0);
  });

  it('changed by somebody else meanwhile say so, and stay as they are here', async () => {
    answer = () => json({ detail: 'The study was changed by somebody else.', status: 409 }, 409);
    const { result } = opened();
    act(() => result.current.change([card(2)]));
    await waitFor(() => expect(result.current.state).toMatchObject({ isConflict: true }), {
      timeout: 3000,
    });
    expect(result.current.state).toMatchObject({
      failed: 'The study was changed by somebody else.',
    });
    expect(weightOf(result.current.cards)).toBe(2);
  });

  it('changed again while the server was away are kept as they are last', async () => {
    let fail: () => void = () => undefined;
    answer = () => new Promise((_, reject) => (fail = () => reject(new TypeError('away'))));
    const { result } = opened();
    act(() => result.current.change([card(2)]));
    await waitFor(() => expect(sent).toHaveLength(1), { timeout: 3000 });
    act(() => result.current.change([card(3)]));
    // It stands in line behind what is on its way when that fails.
    await new Promise((resolve) => setTimeout(resolve, 900));
    answer = (version) => json({ row_version: version + 1 });
    act(() => fail());
    await waitFor(() => expect(result.current.state).toBe('kept'), { timeout: 6000 });
    expect(sent.at(-1)).toEqual({ version: 7, change: { scorecard: card(3), scorecards: null } });
  });

  it('are sent at once when the page goes', async () => {
    const { result } = opened();
    act(() => result.current.change([card(6)]));
    act(() => void window.dispatchEvent(new Event('pagehide')));
    await waitFor(() => expect(sent).toHaveLength(1), { timeout: 300 });
    expect(outlives).toEqual([true]);
  });

  it('are sent when the page goes while others are on their way: from the version that these make', async () => {
    const ends: (() => void)[] = [];
    answer = (version) =>
      new Promise((resolve) => ends.push(() => resolve(json({ row_version: version + 1 }))));
    const { result } = opened();
    act(() => result.current.change([card(2)]));
    await waitFor(() => expect(sent).toHaveLength(1), { timeout: 3000 });
    act(() => result.current.change([card(3)]));
    act(() => void window.dispatchEvent(new Event('pagehide')));
    expect(sent.map(({ version, change }) => [version, change.scorecard])).toEqual([
      [7, card(2)],
      [8, card(3)],
    ]);
    expect(outlives).toEqual([true, true]);
    // Files of a thread share what counts the writes: none stays under way.
    for (const end of ends) end();
    await waitFor(() => expect(writesUnderWay()).toBe(0));
  });

  it('too large to outlive their page are sent all the same', async () => {
    const { result } = opened();
    act(() => result.current.change([card(2, 'x'.repeat(70_000))]));
    act(() => void window.dispatchEvent(new Event('pagehide')));
    await waitFor(() => expect(outlives).toEqual([false]), { timeout: 300 });
  });

  it('are tried again while the server is away, with what was changed meanwhile', async () => {
    vi.useFakeTimers();
    try {
      let isAway = true;
      answer = (version) =>
        isAway ? Promise.reject(new TypeError('network')) : json({ row_version: version + 1 });
      const { result } = opened();
      act(() => result.current.change([card(2)]));
      await act(() => vi.advanceTimersByTimeAsync(700));
      expect(result.current.state).toEqual({
        failed: 'The server does not answer.',
        isConflict: false,
      });
      await act(() => vi.advanceTimersByTimeAsync(2600));
      expect(sent).toHaveLength(2);
      isAway = false;
      act(() => result.current.change([card(3)]));
      await act(() => vi.advanceTimersByTimeAsync(700));
      expect(result.current.state).toBe('kept');
      expect(sent.at(-1)).toMatchObject({ version: 7, change: { scorecard: card(3) } });
      await act(() => vi.advanceTimersByTimeAsync(10_000));
      expect(sent).toHaveLength(3);
    } finally {
      vi.useRealTimers();
    }
  });
});
