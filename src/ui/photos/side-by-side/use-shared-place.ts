import { useCallback, useEffect, useRef, useState, type RefObject } from 'react';
import { usePlace, useWheel } from '../use-place';
import type { Subject } from './subjects';

/** How long the hand rests before the address holds where it is. */
const REST_MS = 200;

interface SharedPlaceGiven {
  subjects: readonly Subject[];
  subject: Subject | undefined;
  frame: RefObject<HTMLDivElement | null>;
  redraw: () => void;
  /** Told which subject the address asks for, once. */
  onAsked: (key: string) => void;
}

/** The place that all windows show, in mm: moved together, held in the address, gone to when it opens. */
export function useSharedPlace({ subjects, subject, frame, redraw, onAsked }: SharedPlaceGiven) {
  const saving = useRef<ReturnType<typeof setTimeout>>(undefined);
  const [scale, setScale] = useState(0);
  const { place, go, zoom, handlers } = usePlace({ x: 0, y: 0, scale: 4 }, () => {
    requestAnimationFrame(redraw);
    clearTimeout(saving.current);
    saving.current = setTimeout(() => {
      setScale(place.current.scale);
      const { x, y, scale: now } = place.current;
      const at = new URLSearchParams({
        of: subject?.key ?? '',
        x: x.toFixed(2),
        y: y.toFixed(2),
        px: now.toFixed(2),
      });
      history.replaceState(history.state, '', `#${at.toString()}`);
    }, REST_MS);
  });
  useWheel(frame, zoom);
  const fit = useCallback(
    (of: Subject | undefined) => {
      const box = of?.photos[0]?.photo.laid.box;
      const canvas = frame.current?.querySelector('canvas');
      if (!box || !canvas) return;
      const share = Math.min(canvas.clientWidth / box.w, canvas.clientHeight / box.h);
      go({ x: box.x + box.w / 2, y: box.y + box.h / 2, scale: share });
    },
    // The place is a reference; going there changes no state.
    // oxlint-disable-next-line react/exhaustive-deps
    [],
  );
  useEffect(() => {
    const at = new URLSearchParams(location.hash.slice(1));
    const of = at.get('of');
    const [x, y, px] = [Number(at.get('x')), Number(at.get('y')), Number(at.get('px'))];
    if (of && px > 0 && Number.isFinite(x) && Number.isFinite(y)) {
      onAsked(of);
      go({ x, y, scale: px });
    } else {
      const chosen = subjects.find((one) => one.key === of) ?? subjects[0];
      onAsked(chosen?.key ?? '');
      fit(chosen);
    }
    // Only once, as the page opens.
    // oxlint-disable-next-line react/exhaustive-deps
  }, []);
  return { place, go, zoom, handlers, fit, scale };
}
