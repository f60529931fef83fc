// @vitest-environment happy-dom
import 'fake-indexeddb/auto';
import { act, renderHook, waitFor } from '@testing-library/react';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { InspectorsWord, EnteredFinding } from '../../../contract/inspect';
import { discard, listWaiting } from '../../lib/outbox';
import { useWords } from './use-words';

/** What the server was sent, and how it answers to it. */
let sent: InspectorsWord[];
let answer: () => Response;

const KEPT = { specimen_id: 's', zone_id: 'face', inspector: 'LK', defect: 'seam', grade: 1 };

beforeEach(async () => {
  sent = [];
  answer = () => new Response(null, { status: 204 });
  vi.stubGlobal('navigator', {
    locks: { request: (_: string, work: () => Promise<unknown>) => work() },
  });
  vi.stubGlobal('fetch', (path: string, init: RequestInit) =>
    Promise.resolve().then(() => {
      if (init.method !== 'GET') {
        const response = answer();
        sent.push(JSON.parse(init.body as string) as InspectorsWord);
        return response;
      }
      const isOwn = path.endsWith('inspector=LK');
      const known = { inspections: isOwn ? [KEPT] : [], findings: isOwn ? [KEPT] : [] };
      return new Response(JSON.stringify(known));
    }),
  );
  for (const { id } of await listWaiting()) await discard(id);
});

const ringing = (grade: number) => ({ defect: 'ringing', grade }) as EnteredFinding;

async function opened(inspector = 'LK') {
  const hook = renderHook((props: { who: string }) => useWords('study', props.who), {
    initialProps: { who: inspector },
  });
  await waitFor(() => expect(hook.result.current.isReady).toBe(true));
  return hook;
}

const grades = (word: readonly EnteredFinding[] | undefined) =>
  word?.map(({ defect, grade }) => `${defect} ${grade}`);

describe('an inspector’s words', () => {
  it('are those that they said before, and nobody else’s', async () => {
    const { result, rerender } = await opened();
    expect(grades(result.current.of('s', 'face'))).toEqual(['seam 1']);
    expect(result.current.of('s', 'back')).toBeUndefined();
    rerender({ who: 'TS' });
    await waitFor(() => expect(result.current.isReady).toBe(true));
    await waitFor(() => expect(result.current.of('s', 'face')).toBeUndefined());
  });

  it('are sent whole, one after another, and taken back in the same way', async () => {
    const { result } = await opened();
    act(() => result.current.say('s', 'face', [ringing(3)]));
    act(() => result.current.say('s', 'back', []));
    expect(grades(result.current.of('s', 'face'))).toEqual(['ringing 3']);
    expect(result.current.of('s', 'back')).toEqual([]);
    act(() => expect(result.current.undo()).toEqual({ specimen: 's', zone: 'back' }));
    expect(result.current.of('s', 'back')).toBeUndefined();
    act(() => expect(result.current.undo()).toEqual({ specimen: 's', zone: 'face' }));
    expect(grades(result.current.of('s', 'face'))).toEqual(['seam 1']);
    act(() => expect(result.current.undo()).toBeNull());
    await waitFor(() => expect(sent).toHaveLength(4));
    expect(sent.map(({ zone_id, findings }) => [zone_id, findings?.length ?? null])).toEqual([
      ['face', 1],
      ['back', 0],
      ['back', null],
      ['face', 1],
    ]);
  });

  it('that the server refuses stand as before, and the reason is told', async () => {
    const { result } = await opened();
    answer = () => new Response(JSON.stringify({ detail: 'no such zone' }), { status: 422 });
    act(() => result.current.say('s', 'face', [ringing(3)]));
    await waitFor(() => expect(result.current.message).toBe('It was not saved: no such zone'));
    expect(grades(result.current.of('s', 'face'))).toEqual(['seam 1']);
  });

  it('wait in the browser while the server is away, and stand on the page', async () => {
    const { result } = await opened();
    answer = () => {
      throw new TypeError('away');
    };
    act(() => result.current.say('s', 'face', [ringing(2)]));
    await waitFor(async () => expect(await listWaiting()).toHaveLength(1));
    expect(grades(result.current.of('s', 'face'))).toEqual(['ringing 2']);
    expect(result.current.message).toBe('');
  });
});
