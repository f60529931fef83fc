import { useCallback, useState } from 'react';
import { Tiles } from './tiles';

/** The tiles of what is looked at, and the canvases that are drawn again when one has come. */
export function useTileDraws() {
  const [draws] = useState(() => new Set<() => void>());
  const redraw = useCallback(() => {
    for (const draw of draws) draw();
  }, [draws]);
  const [tiles] = useState(() => new Tiles(() => requestAnimationFrame(redraw)));
  const register = useCallback(
    (draw: () => void) => {
      draws.add(draw);
      return () => {
        draws.delete(draw);
      };
    },
    [draws],
  );
  return { tiles, redraw, register };
}
