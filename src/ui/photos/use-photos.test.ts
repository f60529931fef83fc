// @vitest-environment happy-dom
import { act, renderHook, waitFor } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { ShownPhoto } from '../../contract/photos';
import { eventStreams } from '../../../tests/support/event-source';
import { json, toldApi } from '../../../tests/support/told-api';
import { usePhotos } from './use-photos';

vi.mock('../kit/send-file', () => ({
  sendFile: (...args: Parameters<typeof sendFile>) => sendFile(...args),
}));
type Sent = { path: string; isKnown: boolean };
type Progress = (share: number, isWaiting: boolean) => void;
let sendFile: (
  base: string,
  file: File,
  hash: string,
  progress: Progress,
  signal: AbortSignal,
  told?: object,
) => Promise<Sent>;
let told: (object | undefined)[];

eventStreams();
const api = toldApi();

/** A worker that hashes: the name of a file stands for its hash, and one of this name is unreadable. */
const UNREADABLE = 'torn.jpg';
class HashWorker {
  static running = 0;
  onmessage?: (event: { data: string | null }) => void;
  postMessage(file: File) {
    HashWorker.running += 1;
    const data = file.name === UNREADABLE ? null : `hash of ${file.name}`;
    queueMicrotask(() => this.onmessage?.({ data }));
  }
  terminate() {
    HashWorker.running -= 1;
  }
}

const photo = (path: string, more: Partial<ShownPhoto> = {}) =>
  ({ path, state: 'done', registration: null, isRectified: false, ...more }) as ShownPhoto;
const file = (name: string) => new File(['x'], name);
/** What the server has of photos. */
let kept: ShownPhoto[];

beforeEach(() => {
  vi.stubGlobal('Worker', HashWorker);
  kept = [];
  told = [];
  sendFile = (_, one, __, ___, ____, said) => {
    told.push(said);
    const path = `photos/${one.name}`;
    kept = [...kept, photo(path)];
    return Promise.resolve({ path, isKnown: false });
  };
  api.answers['GET /studies/u/photos'] = () => json(kept);
});
afterEach(() => vi.unstubAllGlobals());

const opened = (initial: readonly ShownPhoto[] = []) => renderHook(() => usePhotos('u', initial));

describe('photos on their way', () => {
  it('arrive with their facts, and stand among the others', async () => {
    const { result } = opened([]);
    act(() => result.current.send([file('a.jpg')], { specimen_id: 'S-1', view: 'front' }));
    expect(result.current.sending).toMatchObject([{ name: 'a.jpg', share: 0, message: null }]);
    await waitFor(() =>
      expect(result.current.photos.map(({ path }) => path)).toEqual(['photos/a.jpg']),
    );
    expect(told).toEqual([{ specimen_id: 'S-1', view: 'front' }]);
    // No second request follows, which the photo's job would not wait for.
    expect(api.asked.every(({ method }) => method === 'GET')).toBe(true);
    expect(result.current.sending).toEqual([]);
    expect(HashWorker.running).toBe(0);
  });

  it('are sent two at a time, and each says how far it is', async () => {
    const ends: (() => void)[] = [];
    let atOnce = 0;
    sendFile = (_, one, __, progress) => {
      atOnce += 1;
      progress(0.25, one.name === 'b.jpg');
      return new Promise((resolve) => {
        ends.push(() => {
          atOnce -= 1;
          resolve({ path: `photos/${one.name}`, isKnown: false });
        });
      });
    };
    const { result } = opened();
    act(() => result.current.send(['a.jpg', 'b.jpg', 'c.jpg'].map(file), {}));
    await waitFor(() => expect(atOnce).toBe(2));
    await waitFor(() =>
      expect(result.current.sending.map(({ share, isWaiting }) => [share, isWaiting])).toEqual([
        [0.25, false],
        [0.25, true],
        [0, false],
      ]),
    );
    ends[0]?.();
    await waitFor(() => expect(ends).toHaveLength(3));
    expect(atOnce).toBe(2);
    ends[1]?.();
    ends[2]?.();
    await waitFor(() => expect(result.current.sending).toEqual([]));
  });

  it('that are here already are not filed anew, and say so', async () => {
    sendFile = () => Promise.resolve({ path: 'photos/old.jpg', isKnown: true });
    const { result } = opened();
    act(() => result.current.send([file('a.jpg')], { view: 'front' }));
    await waitFor(() =>
      expect(result.current.sending).toMatchObject([
        { share: 1, message: 'this photo is here already, as photos/old.jpg' },
      ]),
    );
    const [{ key = '' } = {}] = result.current.sending;
    act(() => result.current.forget(key));
    expect(result.current.sending).toEqual([]);
  });

  it('that cannot be read or sent stay with the reason, and stop none of the others', async () => {
    const send = sendFile;
    sendFile = (...args) =>
      args[1].name === 'large.jpg' ? Promise.reject(new Error('too large')) : send(...args);
    const { result } = opened();
    act(() => result.current.send([UNREADABLE, 'large.jpg', 'c.jpg'].map(file), {}));
    await waitFor(() => expect(result.current.photos).toHaveLength(1));
    await waitFor(() =>
      expect(result.current.sending.map(({ name, message }) => [name, message])).toEqual([
        [UNREADABLE, 'the file could not be read here'],
        ['large.jpg', 'too large'],
      ]),
    );
    expect(HashWorker.running).toBe(0);
  });
});

describe('photos on the server', () => {
  it('are read again and again until they are laid flat', async () => {
    kept = [photo('a', { state: 'waiting' })];
    const { result } = opened(kept);
    await waitFor(() => expect(api.asked.length).toBeGreaterThan(0));
    kept = [photo('a', { registration: {} as ShownPhoto['registration'] })];
    await waitFor(() => expect(result.current.photos).toEqual(kept));
    kept = [photo('a', { registration: {} as ShownPhoto['registration'], isRectified: true })];
    await waitFor(() => expect(result.current.photos).toEqual(kept));
    const asked = api.asked.length;
    await new Promise((resolve) => setTimeout(resolve, 1200));
    expect(api.asked).toHaveLength(asked);
  });

  it('say why something could not be done with them, until something could', async () => {
    const { result } = opened();
    const doing = async (work: () => Promise<unknown>) => {
      let isDone: boolean | undefined;
      await act(async () => {
        isDone = await result.current.change(work);
      });
      return isDone;
    };
    expect(await doing(() => Promise.reject(new Error('it is in a report')))).toBe(false);
    expect(result.current.message).toBe('it is in a report');
    kept = [photo('b')];
    expect(await doing(() => Promise.resolve())).toBe(true);
    expect(result.current.message).toBe('');
    expect(result.current.photos).toEqual(kept);
  });
});
