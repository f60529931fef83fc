import type { RectifiedPhoto } from '../tiles';
import type { Subject } from './subjects';

export type Mode = 'side' | 'blink' | 'split' | 'difference';

/** A window of the page: one photo, or two over each other, each with the gain it is shown with. */
export interface PhotoWindow {
  at: number;
  photos: readonly RectifiedPhoto[];
  gains: readonly number[];
}

/**
 * The windows of a mode: one a photo side by side, the one whose turn it is when they blink, the first two
 * over each other else. `gains` are by place, as are `shown`.
 */
export function windowsOf(
  mode: Mode,
  turn: number,
  shown: Subject['photos'],
  gains: readonly number[],
): PhotoWindow[] {
  const gainOf = (at: number) => gains[at] ?? 1;
  if (mode === 'side' || mode === 'blink') {
    return shown
      .map(({ photo }, at) => ({ at, photos: [photo], gains: [gainOf(at)] }))
      .filter(({ at }) => mode === 'side' || at === turn);
  }
  const pair = shown.slice(0, 2);
  return [
    { at: 0, photos: pair.map(({ photo }) => photo), gains: pair.map((_, at) => gainOf(at)) },
  ];
}

/** Gains that bring every known mean grey to the mean of them all; 1 where a grey is not known. */
export function matchingGains(greys: readonly (number | null)[]): number[] {
  const known = greys.filter((grey) => grey !== null);
  const middle = known.reduce((sum, grey) => sum + grey, 0) / Math.max(1, known.length);
  return greys.map((grey) => (grey ? middle / grey : 1));
}
