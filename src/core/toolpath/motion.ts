import type { Tally } from './tally';
import type { Travelled } from './travelled';
import type { WordReader } from './words';

/** Before the first F, mm/s. */
export const FIRST_FEED_MM_S = 25;

/** What moves take and how their speeds are spread. */
export type Times = Omit<Tally, 'add' | 'claim'>;

/** What moves amount to besides their time. */
export type Ways = Pick<
  Travelled,
  | (
      | 'travel_mm'
      | 'extruded_mm'
      | 'filament_mm'
      | 'retractions'
      | 'retract_mm'
      | 'toolChanges'
      | 'purge_mm'
    )
  | ('hasMotion' | 'tops' | 'notedTops' | 'accelerations' | 'min' | 'max')
>;

/**
 * Makes moves of what is commanded, and adds up what they amount to. There are two: `PlainMotion`, which says what
 * is right, and `HotMotion`, which is compiled and does the same many times faster.
 */
export interface Motion {
  /** @param mmPerUnit 1, or 25.4 where lengths are in inches */
  setModes(isAbsolute: boolean, isAbsoluteE: boolean, mmPerUnit: number): void;
  setFactors(feed: number, flow: number): void;
  /** The limits are others from here on. */
  limitsChanged(): void;
  /** What is extruded from here on is for this role, in this layer by the file's own word (-1: none yet). */
  note(role: number, layer: number): void;
  /** Whether X, Y or Z moved since this was last asked. */
  takeMoved(): boolean;
  /** G0 and G1. */
  line(words: WordReader): void;
  /** G2 and G3. @returns false where there is no such arc; nothing has moved then */
  arc(words: WordReader, isClockwise: boolean): boolean;
  /** E alone, mm, at a speed in mm/s: from rest to rest. */
  filament(e: number, speed: number): void;
  /** A retraction whose length nobody has stated: it counts, and moves nothing. */
  firmwareRetract(isBack: boolean): void;
  /** Comes to rest; the axes that are named, or all, are at 0. */
  home(words: WordReader): void;
  /** Gives the present position other coordinates. */
  shift(words: WordReader): void;
  /** Comes to rest and goes on with another tool. */
  changeTool(tool: number): void;
  /** Comes to rest. */
  rest(): void;
  /** Comes to rest, and says what all of it amounts to. */
  done(): { times: Times; ways: Ways };
}
