// @vitest-environment happy-dom
import { act, renderHook } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { writesUnderWay } from './request';
import { useSerialQueue } from './use-serial-queue';
import { useLatest } from './use-latest';

describe('what is done in turn', () => {
  it('is done in the order in which it was asked for, one at a time', async () => {
    const { result } = renderHook(() => useSerialQueue());
    const done: string[] = [];
    const work = (name: string, ms: number) => async () => {
      done.push(`${name} begins`);
      await new Promise((resolve) => setTimeout(resolve, ms));
      done.push(`${name} ends`);
      return name;
    };
    const all = await Promise.all([
      result.current(work('slow', 20)),
      result.current(work('quick', 0)),
    ]);
    expect(all).toEqual(['slow', 'quick']);
    expect(done).toEqual(['slow begins', 'slow ends', 'quick begins', 'quick ends']);
  });

  it('goes on after what failed, which tells its own asker only', async () => {
    const { result } = renderHook(() => useSerialQueue());
    const failed = result.current(() => Promise.reject(new Error('refused')));
    const after = result.current(() => Promise.resolve('kept'));
    await expect(failed).rejects.toThrow('refused');
    await expect(after).resolves.toBe('kept');
  });

  it('is under way from when it is asked for until it is done', async () => {
    const { result } = renderHook(() => useSerialQueue());
    const seen: number[] = [];
    const first = result.current(async () => {
      await Promise.resolve();
      seen.push(writesUnderWay());
    });
    const second = result.current(() => Promise.resolve(seen.push(writesUnderWay())));
    seen.push(writesUnderWay());
    await Promise.all([first, second]);
    expect([...seen, writesUnderWay()]).toEqual([2, 2, 1, 0]);
  });

  it('is the same for all renderings of what asks', () => {
    const { result, rerender } = renderHook(() => useSerialQueue());
    const first = result.current;
    rerender();
    expect(result.current).toBe(first);
  });
});

describe('the latest state', () => {
  it('is known at once to what began before it changed', () => {
    const { result } = renderHook(() => useLatest<readonly number[]>([1]));
    const before = result.current;
    act(() => {
      before.change((all) => [...all, 2]);
      before.change((all) => [...all, 3]);
      expect(before.read()).toEqual([1, 2, 3]);
      expect(before.shown).toEqual([1]);
    });
    expect(result.current.shown).toEqual([1, 2, 3]);
  });

  it('may be made when it is first wanted, once', () => {
    let made = 0;
    const { result, rerender } = renderHook(() =>
      useLatest(() => {
        made += 1;
        return 'first';
      }),
    );
    rerender();
    expect([result.current.shown, result.current.read(), made]).toEqual(['first', 'first', 1]);
  });
});
