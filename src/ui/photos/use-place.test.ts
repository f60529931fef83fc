// @vitest-environment happy-dom
import { act, renderHook } from '@testing-library/react';
import { describe, expect, it, vi } from 'vitest';
import { between, pointUnder, usePlace, useWheel } from './use-place';
import type { Place } from './tiles';

const START: Place = { x: 10, y: 20, scale: 4 };
/** A frame of 400 × 200 pixels whose upper left corner lies at (100, 50). */
const RECT = { left: 100, top: 50, width: 400, height: 200 };
const frame = { getBoundingClientRect: () => RECT, setPointerCapture: () => undefined };

const opened = (initial = START) => {
  const onMove = vi.fn();
  const { result } = renderHook(() => usePlace(initial, onMove));
  const { current } = result;
  const pointer = (pointerId: number, clientX: number, clientY: number) =>
    ({
      pointerId,
      clientX,
      clientY,
      currentTarget: frame,
      target: frame,
    }) as unknown as React.PointerEvent;
  return { ...current, onMove, pointer, at: () => current.place.current };
};
type Bench = ReturnType<typeof opened>;

/** Which point of the view, mm, a place of the frame shows. */
const under = (bench: Bench, clientX: number, clientY: number) =>
  pointUnder({ clientX, clientY, target: frame as unknown as EventTarget }, bench.at());
const close = (point: { x: number; y: number }) => ({
  x: expect.closeTo(point.x, 9) as number,
  y: expect.closeTo(point.y, 9) as number,
});

describe('a place that is looked at in several frames', () => {
  it('has its point in the middle of the frame, with heights going up', () => {
    const bench = opened();
    expect(under(bench, 300, 150)).toEqual({ x: 10, y: 20 });
    // 40 pixels at 4 pixels a millimetre.
    expect(under(bench, 340, 110)).toEqual({ x: 20, y: 30 });
  });

  it('goes with one finger: what is under it stays under it', () => {
    const bench = opened();
    const held = under(bench, 200, 100);
    bench.handlers.onPointerDown(bench.pointer(1, 200, 100));
    bench.handlers.onPointerMove(bench.pointer(1, 260, 130));
    bench.handlers.onPointerMove(bench.pointer(1, 290, 90));
    expect(under(bench, 290, 90)).toEqual(close(held));
    expect(bench.at().scale).toBe(4);
    expect(bench.onMove).toHaveBeenCalledTimes(2);
  });

  it('does not go with a pointer that is not down, or not any more', () => {
    const bench = opened();
    bench.handlers.onPointerMove(bench.pointer(1, 260, 130));
    bench.handlers.onPointerDown(bench.pointer(1, 200, 100));
    bench.handlers.onPointerUp(bench.pointer(1, 200, 100));
    bench.handlers.onPointerMove(bench.pointer(1, 260, 130));
    bench.handlers.onPointerDown(bench.pointer(2, 200, 100));
    bench.handlers.onPointerCancel(bench.pointer(2, 200, 100));
    bench.handlers.onPointerMove(bench.pointer(2, 260, 130));
    expect(bench.at()).toEqual(START);
    expect(bench.onMove).not.toHaveBeenCalled();
  });

  it('zooms by two fingers: as far as they part, and what the still one is on stays there', () => {
    const bench = opened();
    const still = under(bench, 220, 90);
    bench.handlers.onPointerDown(bench.pointer(1, 220, 90));
    bench.handlers.onPointerDown(bench.pointer(2, 320, 90));
    bench.handlers.onPointerMove(bench.pointer(2, 470, 90));
    // From 100 to 250 pixels apart.
    expect(bench.at().scale).toBeCloseTo(10, 9);
    expect(under(bench, 220, 90)).toEqual(close(still));
  });

  it('does not leap where two fingers touch nearly the same point', () => {
    const bench = opened();
    bench.handlers.onPointerDown(bench.pointer(1, 220, 90));
    bench.handlers.onPointerDown(bench.pointer(2, 225, 90));
    bench.handlers.onPointerMove(bench.pointer(2, 280, 90));
    expect(bench.at()).toEqual(START);
  });

  it('keeps the point that is zoomed at, and zooms within its ends only', () => {
    const bench = opened();
    const point = under(bench, 300 + 80, 150 - 40);
    bench.zoom(2.5, 80, -40);
    expect(bench.at().scale).toBe(10);
    expect(under(bench, 380, 110)).toEqual(close(point));
    bench.zoom(1e6);
    expect(bench.at().scale).toBe(400);
    bench.zoom(1e-9, 80, -40);
    expect(bench.at().scale).toBe(1);
    expect(under(bench, 380, 110).x).toBeTypeOf('number');
  });

  it('goes where it is told, and keeps the rest', () => {
    const bench = opened();
    bench.go({ x: -5 });
    expect(bench.at()).toEqual({ x: -5, y: 20, scale: 4 });
  });
});

describe('the rectangle between two corners', () => {
  it('is the same from whichever corner it is drawn', () => {
    const box = { x: -2, y: 1, w: 5, h: 8 };
    expect(between({ x: -2, y: 1 }, { x: 3, y: 9 })).toEqual(box);
    expect(between({ x: 3, y: 9 }, { x: -2, y: 1 })).toEqual(box);
    expect(between({ x: -2, y: 9 }, { x: 3, y: 1 })).toEqual(box);
  });
});

describe('the wheel', () => {
  const turned = (on: 'canvas' | 'p') => {
    const element = document.createElement('div');
    const inner = document.createElement(on);
    inner.getBoundingClientRect = () => RECT as DOMRect;
    element.append(inner);
    const zoom = vi.fn();
    const { unmount } = renderHook(() => useWheel({ current: element }, zoom));
    const turn = () => {
      const event = new WheelEvent('wheel', { deltaY: -400, bubbles: true, cancelable: true });
      Object.assign(event, { clientX: 340, clientY: 140 });
      act(() => void inner.dispatchEvent(event));
      return event.defaultPrevented;
    };
    return { zoom, turn, unmount };
  };

  it('over a picture zooms at the pointer, and the page stands', () => {
    const { zoom, turn, unmount } = turned('canvas');
    expect(turn()).toBe(true);
    expect(zoom).toHaveBeenCalledExactlyOnceWith(expect.closeTo(Math.E, 9), 40, -10);
    unmount();
    turn();
    expect(zoom).toHaveBeenCalledTimes(1);
  });

  it('over anything else moves the page', () => {
    const { zoom, turn } = turned('p');
    expect(turn()).toBe(false);
    expect(zoom).not.toHaveBeenCalled();
  });
});
