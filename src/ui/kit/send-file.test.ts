// @vitest-environment happy-dom
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { json, toldApi } from '../../../tests/support/told-api';
import { sendFile } from './send-file';

const api = toldApi();

/** What is put by the request that tells how far it is: where, and how many bytes. */
let put: { address: string; bytes: number }[];
/** What is answered to each of these, one after another. */
let answers: (() => { status: number; content: unknown } | 'broken')[];

class ToldRequest {
  upload: { onprogress?: (event: { loaded: number }) => void; onload?: () => void } = {};
  onerror?: () => void;
  onabort?: () => void;
  onload?: () => void;
  status = 0;
  responseText = '';
  #address = '';
  open(_: string, address: string) {
    this.#address = address.replace('/api/v1', '');
  }
  setRequestHeader() {}
  abort() {
    this.onabort?.();
  }
  send(content: Blob) {
    put.push({ address: this.#address, bytes: content.size });
    const answer = answers.shift()?.() ?? 'broken';
    queueMicrotask(() => {
      if (answer === 'broken') return this.onerror?.();
      this.upload.onprogress?.({ loaded: Math.floor(content.size / 2) });
      this.upload.onload?.();
      this.status = answer.status;
      this.responseText = JSON.stringify(answer.content);
      this.onload?.();
    });
  }
}

const MB = 1024 * 1024;
const HASH = 'c'.repeat(64);
const file = (bytes: number) => new File([new Uint8Array(bytes)], 'plate.gcode');

beforeEach(() => {
  put = [];
  answers = [];
  vi.stubGlobal('XMLHttpRequest', ToldRequest);
  vi.useFakeTimers({ toFake: ['setTimeout'] });
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

const received = (bytes: number) => () => ({ status: 202, content: { received: bytes } });
const arrived = () => ({ status: 201, content: { path: 'toolpaths/plate.gcode', isKnown: false } });

function sending(one: File, signal = new AbortController().signal) {
  const shares: [number, boolean][] = [];
  const done = sendFile(
    '/studies/u/sliced-files',
    one,
    HASH,
    (share, isWaiting) => shares.push([share, isWaiting]),
    signal,
  );
  done.catch(() => undefined);
  return { done, shares };
}

describe('a file on its way', () => {
  it('that is there already is not sent', async () => {
    api.answers['POST /studies/u/sliced-files'] = () =>
      json({ path: 'toolpaths/a.gcode', isKnown: true });
    expect(await sending(file(3 * MB)).done).toEqual({ path: 'toolpaths/a.gcode', isKnown: true });
    expect(api.asked[0]?.body).toEqual({ name: 'plate.gcode', bytes: 3 * MB, sha256: HASH });
    expect(put).toEqual([]);
  });

  it('goes in parts, from where the last one ended, and tells how far it is', async () => {
    api.answers['POST /studies/u/sliced-files'] = () => json({ received: 0 });
    answers = [received(16 * MB), received(32 * MB), arrived];
    const { done, shares } = sending(file(40 * MB));
    expect(await done).toEqual({ path: 'toolpaths/plate.gcode', isKnown: false });
    const at = `/studies/u/sliced-files/uploads/${HASH}?offset=`;
    expect(put).toEqual([
      { address: `${at}0`, bytes: 16 * MB },
      { address: `${at}${16 * MB}`, bytes: 16 * MB },
      { address: `${at}${32 * MB}`, bytes: 8 * MB },
    ]);
    const told = shares.map(([share]) => share);
    expect(told).toEqual([...told].sort((a, b) => a - b));
    expect(told.at(-1)).toBe(1);
    expect(shares.every(([, isWaiting]) => !isWaiting)).toBe(true);
  });

  it('waits where the connection breaks, and goes on from what has arrived', async () => {
    let asked = 0;
    api.answers['POST /studies/u/sliced-files'] = () =>
      json({ received: asked++ === 0 ? 0 : 16 * MB });
    answers = [received(16 * MB), () => 'broken', arrived];
    const { done, shares } = sending(file(20 * MB));
    await vi.advanceTimersByTimeAsync(2000);
    expect(await done).toMatchObject({ isKnown: false });
    expect(put.map(({ bytes }) => bytes)).toEqual([16 * MB, 4 * MB, 4 * MB]);
    expect(shares).toContainEqual([0, true]);
  });

  it.each([500, 503])('waits for a server that is ill: %i', async (status) => {
    api.answers['POST /studies/u/sliced-files'] = () => json({ received: 0 });
    answers = [() => ({ status, content: { detail: 'not now' } }), arrived];
    const { done, shares } = sending(file(MB));
    await vi.advanceTimersByTimeAsync(2000);
    expect(await done).toMatchObject({ isKnown: false });
    expect(shares).toContainEqual([0, true]);
  });

  it('gives up at once where it is refused', async () => {
    api.answers['POST /studies/u/sliced-files'] = () => json({ received: 0 });
    answers = [() => ({ status: 400, content: { detail: 'It is not what it said it is.' } })];
    await expect(sending(file(MB)).done).rejects.toThrow('It is not what it said it is.');
    expect(put).toHaveLength(1);
  });

  it('is thrown away on the server where its sender gives it up', async () => {
    api.answers['POST /studies/u/sliced-files'] = () => json({ received: 0 });
    api.answers[`DELETE /studies/u/sliced-files/uploads/${HASH}`] = () => json(null, 204);
    const given = new AbortController();
    answers = [
      () => {
        given.abort();
        return received(16 * MB)();
      },
    ];
    await expect(sending(file(20 * MB), given.signal).done).rejects.toThrow();
    expect(api.asked.at(-1)).toMatchObject({ method: 'DELETE' });
    expect(put).toHaveLength(1);
  });
});
