// @vitest-environment happy-dom
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { emptyOutbox } from '../../../tests/support/outbox';
import { listWaiting, OUTBOX_EVENT, sendOrKeep, sendWaiting } from './outbox';

/** A server that is there, away, or says no. */
let answers: () => Response;
const sent: { path: string; content: unknown }[] = [];

const ok = (content: object = { row_version: 1 }) =>
  new Response(JSON.stringify(content), { status: 201 });
const away = (): Response => {
  throw new TypeError('fetch failed');
};
const refuse = (status: number, detail: string) => () =>
  new Response(JSON.stringify({ detail }), { status });

emptyOutbox();
beforeEach(() => {
  vi.stubGlobal('fetch', (path: string, init: RequestInit) => {
    const answer = Promise.resolve().then(() => answers());
    return answer.then((response) => {
      if (response.ok) sent.push({ path, content: JSON.parse(init.body as string) });
      return response;
    });
  });
  answers = ok;
  sent.length = 0;
});

const waiting = async () => (await listWaiting()).map(({ content }) => content);

describe('an entry at the bench', () => {
  it('goes to the server where it is there, and nothing waits', async () => {
    expect(await sendOrKeep('/readings', { n: 1 })).toEqual({ row_version: 1 });
    expect(sent).toEqual([{ path: '/api/v1/readings', content: { n: 1 } }]);
    expect(await waiting()).toEqual([]);
  });

  it('waits where the server is away, and arrives in the order in which it was made', async () => {
    answers = away;
    for (const n of [1, 2, 3]) expect(await sendOrKeep('/readings', { n })).toBeNull();
    expect(await waiting()).toEqual([{ n: 1 }, { n: 2 }, { n: 3 }]);
    answers = ok;
    // The next one comes after those that waited.
    await sendOrKeep('/readings', { n: 4 });
    expect(sent.map(({ content }) => content)).toEqual([{ n: 1 }, { n: 2 }, { n: 3 }, { n: 4 }]);
    expect(await waiting()).toEqual([]);
  });

  it('that the server refuses is told at once and does not wait', async () => {
    answers = refuse(422, 'x1 is retired');
    await expect(sendOrKeep('/readings', { n: 1 })).rejects.toThrow('x1 is retired');
    expect(await waiting()).toEqual([]);
  });

  it('that waited and is refused stays with the reason, and holds up none behind it', async () => {
    answers = away;
    await sendOrKeep('/readings', { n: 1 });
    await sendOrKeep('/readings', { n: 2 });
    let turn = 0;
    answers = () => (turn++ === 0 ? refuse(422, 'no such specimen')() : ok());
    await sendWaiting();
    expect(sent.map(({ content }) => content)).toEqual([{ n: 2 }]);
    const [kept] = await listWaiting();
    expect(kept).toMatchObject({ content: { n: 1 }, refused: 'no such specimen' });
    answers = ok;
    await sendWaiting();
    expect(sent).toHaveLength(1);
    await sendOrKeep('/readings', { n: 3 });
    expect(sent.map(({ content }) => content)).toEqual([{ n: 2 }, { n: 3 }]);
  });

  it('waits for who must sign in again, and for a server that is asked too much', async () => {
    answers = refuse(401, 'Sign in, or send a key.');
    expect(await sendOrKeep('/readings', { n: 1 })).toBeNull();
    // The page can say so: one must sign in before it can be sent.
    expect(await sendWaiting()).toBe(true);
    answers = refuse(429, 'Too many at once.');
    expect(await sendOrKeep('/readings', { n: 2 })).toBeNull();
    expect(await sendWaiting()).toBe(false);
    expect(await waiting()).toEqual([{ n: 1 }, { n: 2 }]);
    answers = ok;
    expect(await sendWaiting()).toBe(false);
    expect(sent.map(({ content }) => content)).toEqual([{ n: 1 }, { n: 2 }]);
    expect(await waiting()).toEqual([]);
  });

  it.each([500, 503])('is not given up for a server that is ill: %i', async (status) => {
    answers = away;
    await sendOrKeep('/readings', { n: 1 });
    answers = refuse(status, 'the database is away');
    await sendWaiting();
    expect(await waiting()).toEqual([{ n: 1 }]);
    expect((await listWaiting())[0]).not.toHaveProperty('refused');
  });

  it('tells the page whenever what waits has changed', async () => {
    const told = vi.fn();
    window.addEventListener(OUTBOX_EVENT, told);
    answers = away;
    await sendOrKeep('/readings', { n: 1 });
    expect(told).toHaveBeenCalledTimes(1);
    answers = ok;
    await sendWaiting();
    expect(told).toHaveBeenCalledTimes(2);
    window.removeEventListener(OUTBOX_EVENT, told);
  });
});
