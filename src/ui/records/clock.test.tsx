// @vitest-environment happy-dom
import { act, cleanup, fireEvent, render, screen } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { Clock } from './Clock';

const onStop = vi.fn();

beforeEach(() => {
  localStorage.clear();
  onStop.mockClear();
  vi.useFakeTimers();
});
afterEach(() => {
  cleanup();
  vi.useRealTimers();
});

const shown = () => render(<Clock name="clock" what="setting up" onStop={onStop} />);
const time = () => screen.getByRole('timer').textContent;
const pass = (seconds: number) => act(() => vi.advanceTimersByTime(seconds * 1000));
const space = (more: object = {}, on: Element = document.body) =>
  fireEvent.keyDown(on, { key: ' ', ...more });

describe('a clock', () => {
  it('is started and stopped by Space, and tells how long it ran', () => {
    shown();
    expect(time()).toBe('0:00');
    space();
    void pass(75);
    expect(time()).toBe('1:15');
    space();
    expect(onStop).toHaveBeenCalledExactlyOnceWith(75);
    expect(time()).toBe('0:00');
  });

  it('goes on while the page is left', () => {
    shown();
    fireEvent.click(screen.getByRole('button', { name: /Start clock/ }));
    cleanup();
    void pass(3600);
    shown();
    void pass(1);
    expect(time()).toBe('1:00:01');
    fireEvent.click(screen.getByRole('button', { name: /Stop clock/ }));
    expect(onStop).toHaveBeenCalledExactlyOnceWith(3601);
  });

  it.each([
    ['held down', { repeat: true }],
    ['with Ctrl', { ctrlKey: true }],
    ['with Alt', { altKey: true }],
    ['with Meta', { metaKey: true }],
    ['another key', { key: 'a' }],
  ])('stands for Space %s', (_, more) => {
    shown();
    space(more);
    void pass(5);
    expect(time()).toBe('0:00');
  });

  it.each(['input', 'select', 'textarea', 'button', 'a'])('stands for a Space in: %s', (tag) => {
    shown();
    const element = document.body.appendChild(document.createElement(tag));
    space({}, element);
    element.remove();
    void pass(5);
    expect(time()).toBe('0:00');
  });
});
