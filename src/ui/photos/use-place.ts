import { nearest } from '../kit/event-target';
import { useEffect, useRef } from 'react';
import type { ViewBox } from '../../core/measures/image';
import type { Place } from './tiles';

/** Zoom at most, screen pixels a millimetre. */
const LARGEST = 400;
const SMALLEST = 1;

export interface Movable {
  place: React.RefObject<Place>;
  /** Goes somewhere; what is seen is drawn anew. */
  go: (to: Partial<Place>) => void;
  /** Zooms by a factor and keeps a point, in pixels from the middle, where it is. */
  zoom: (factor: number, right?: number, down?: number) => void;
  /** Handlers of what one looks at: drag, wheel and pinch move all. */
  handlers: {
    onPointerDown: (event: React.PointerEvent) => void;
    onPointerMove: (event: React.PointerEvent) => void;
    onPointerUp: (event: React.PointerEvent) => void;
    onPointerCancel: (event: React.PointerEvent) => void;
  };
}

/**
 * A place of a view that is looked at in several frames at once. It changes with every move of a hand,
 * so it is no state: whoever shows it is told to draw.
 */
export function usePlace(initial: Place, onMove: () => void): Movable {
  const place = useRef<Place>(initial);
  const pointers = useRef(new Map<number, { x: number; y: number }>());
  const go = (to: Partial<Place>) => {
    place.current = { ...place.current, ...to };
    onMove();
  };
  const zoom = (factor: number, right = 0, down = 0) => {
    const { x, y, scale } = place.current;
    const next = Math.max(SMALLEST, Math.min(LARGEST, scale * factor));
    go({
      x: x + right / scale - right / next,
      y: y - down / scale + down / next,
      scale: next,
    });
  };
  return {
    place,
    go,
    zoom,
    handlers: {
      onPointerDown: (event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        pointers.current.set(event.pointerId, { x: event.clientX, y: event.clientY });
      },
      onPointerMove: (event) => {
        const before = pointers.current.get(event.pointerId);
        if (!before) return;
        const now = { x: event.clientX, y: event.clientY };
        const others = [...pointers.current].filter(([id]) => id !== event.pointerId);
        const { x, y, scale } = place.current;
        const [other] = others;
        if (other) {
          const [, fixed] = other;
          const was = Math.hypot(before.x - fixed.x, before.y - fixed.y);
          const is = Math.hypot(now.x - fixed.x, now.y - fixed.y);
          const rect = event.currentTarget.getBoundingClientRect();
          if (was > 10) {
            zoom(
              is / was,
              fixed.x - rect.left - rect.width / 2,
              fixed.y - rect.top - rect.height / 2,
            );
          }
        } else {
          go({ x: x - (now.x - before.x) / scale, y: y + (now.y - before.y) / scale });
        }
        pointers.current.set(event.pointerId, now);
      },
      onPointerUp: (event) => pointers.current.delete(event.pointerId),
      onPointerCancel: (event) => pointers.current.delete(event.pointerId),
    },
  };
}

/** The point of a view, mm, that lies under a pointer in a window onto it. */
export function pointUnder(
  event: Pick<React.PointerEvent, 'clientX' | 'clientY' | 'target'>,
  { x, y, scale }: Place,
): { x: number; y: number } {
  const rect = (event.target as HTMLElement).getBoundingClientRect();
  return {
    x: x + (event.clientX - rect.left - rect.width / 2) / scale,
    y: y - (event.clientY - rect.top - rect.height / 2) / scale,
  };
}

/** The rectangle between two of its corners. */
export const between = (a: { x: number; y: number }, b: { x: number; y: number }): ViewBox => ({
  x: Math.min(a.x, b.x),
  y: Math.min(a.y, b.y),
  w: Math.abs(a.x - b.x),
  h: Math.abs(a.y - b.y),
});

/** Lets the wheel over an element zoom and the page stand; React's own listener could not. */
export function useWheel(
  frame: React.RefObject<HTMLElement | null>,
  zoom: (factor: number, right: number, down: number) => void,
): void {
  useEffect(() => {
    const element = frame.current;
    if (!element) return undefined;
    const onWheel = (event: WheelEvent) => {
      const target = nearest(event, 'canvas');
      if (!target) return;
      event.preventDefault();
      const rect = target.getBoundingClientRect();
      zoom(
        Math.exp(-event.deltaY / 400),
        event.clientX - rect.left - rect.width / 2,
        event.clientY - rect.top - rect.height / 2,
      );
    };
    element.addEventListener('wheel', onWheel, { passive: false });
    return () => element.removeEventListener('wheel', onWheel);
  });
}
