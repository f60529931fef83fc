// @vitest-environment happy-dom
import { act, renderHook } from '@testing-library/react';
import { useState } from 'react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { useKeys } from './use-keys';

/** When the next key is pressed, ms; far from those of other tests. */
let now = 1000;

beforeEach(() => {
  vi.useFakeTimers();
  now += 10_000;
});
afterEach(() => {
  vi.useRealTimers();
});

/** A key that is pressed at a time and heard of at once; timers do not run meanwhile. */
function press(key: string, atMs: number, more: KeyboardEventInit = {}): boolean {
  const event = new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true, ...more });
  Object.defineProperty(event, 'timeStamp', { value: now + atMs });
  act(() => {
    document.body.dispatchEvent(event);
  });
  return event.defaultPrevented;
}

/** A page on which letters are written one after another, Enter ends a word, and the arrow goes on. */
function writing() {
  const { result, unmount } = renderHook(() => {
    const [text, setText] = useState('');
    useKeys((event) => {
      if (event.altKey) return null;
      if (/^[a-z0-9]$/.test(event.key)) return () => setText(text + event.key);
      if (event.key === 'Enter') return () => setText(`${text}.`);
      return event.key === 'ArrowDown' ? () => setText(`${text}>`) : null;
    });
    return text;
  });
  return { text: () => result.current, unmount };
}

const settled = () => act(() => void vi.advanceTimersByTime(200));

describe('keys on a page', () => {
  it('of another clock follow nothing', () => {
    const page = writing();
    press('a', 0);
    settled();
    // Keys that real time has stamped, or a page that slept: long before the last one.
    press('b', -9000);
    settled();
    expect(page.text()).toBe('ab');
    page.unmount();
  });

  it('mean what a hand presses, one after another', () => {
    const page = writing();
    expect(press('a', 0)).toBe(true);
    act(() => void vi.advanceTimersByTime(120));
    press('b', 120);
    settled();
    expect(page.text()).toBe('ab');
    page.unmount();
  });

  it('are all heard where the page was busy, each after what the one before it did', () => {
    const page = writing();
    // No timer has run: all three are heard of at once, though a hand pressed them.
    for (const [at, key] of ['r', 'i', '3'].entries()) press(key, 120 * at);
    settled();
    expect(page.text()).toBe('ri3');
    press('s', 1000);
    press('ArrowDown', 1120);
    settled();
    expect(page.text()).toBe('ri3s>');
    page.unmount();
  });

  it('of a sticker that is scanned mean nothing, its Enter neither', () => {
    const page = writing();
    for (const [at, key] of [...'k7003', 'Enter'].entries()) press(key, 8 * at);
    settled();
    expect(page.text()).toBe('');
    press('a', 1000);
    settled();
    expect(page.text()).toBe('a');
    page.unmount();
  });

  it('are heard by every part of a page, each for its own', () => {
    const [page, other] = [writing(), writing()];
    press('a', 0);
    press('b', 120);
    settled();
    expect([page.text(), other.text()]).toEqual(['ab', 'ab']);
    for (const [at, key] of [...'k7'].entries()) press(key, 1000 + 8 * at);
    settled();
    expect([page.text(), other.text()]).toEqual(['ab', 'ab']);
    page.unmount();
    other.unmount();
  });

  it('that are held down go on and on', () => {
    const page = writing();
    press('a', 0);
    settled();
    for (let at = 1; at <= 5; at += 1) press('ArrowDown', 500 + 33 * at, { repeat: at > 1 });
    settled();
    expect(page.text()).toBe('a>>>>>');
    page.unmount();
  });

  it('are left to fields, to the browser’s own, and to pages that are gone', () => {
    const page = writing();
    expect(press('a', 0, { ctrlKey: true })).toBe(false);
    const field = document.body.appendChild(document.createElement('input'));
    field.dispatchEvent(new KeyboardEvent('keydown', { key: 'a', bubbles: true }));
    field.remove();
    settled();
    expect(page.text()).toBe('');
    page.unmount();
    expect(press('b', 500)).toBe(false);
  });
});
