import type { OrRefused } from '../../core/model/faults';
import type {
  CodeInPhoto,
  FoundCard,
  Measured,
  MeasureOptions,
  PhotoMeasure,
  Projection,
  ViewBox,
} from '../../core/measures/image';
import type { BlindFrame, Levels } from './blind';
import type { PixelRegion, PictureSize } from './pictures';

/** A picture that was made of a photo, as a JPEG. */
export interface MadePicture {
  level: number;
  column: number;
  row: number;
  width: number;
  height: number;
  bytes: Uint8Array;
}

/** What a photo shows before anybody has told anything of it. */
export interface PhotoFacts extends PictureSize {
  /** When it was taken, by its own account, ISO 8601. */
  takenAt: string | null;
  codes: { text: string; corners: { u: number; v: number }[] }[];
  /** The photo as it is seen, free of all that its file says besides, and halved until it is small. */
  levels: MadePicture[];
}

/** The view of a registered photo in tiles. */
export interface RectifiedTiles {
  width: number;
  height: number;
  tile: number;
  levels: number;
  tiles: MadePicture[];
}

/** What marks can be proposed from: the scale card in a photo, and the corners of the part's outline. */
export interface FoundCorners {
  card: FoundCard | null;
  /** Clockwise from the upper left, pixels. */
  corners: { u: number; v: number }[] | null;
}

/** A region to be measured: pixels of the photo, or millimetres of its view. */
export type MeasuredRegion =
  { unit: 'px'; region: PixelRegion } | { unit: 'mm'; region: ViewBox; toPicture: Projection };

export type PhotoTask =
  | { do: 'examine'; path: string }
  | { do: 'corners'; path: string; codes: readonly CodeInPhoto[] }
  | { do: 'lay'; path: string; toPicture: Projection; box: ViewBox; pxPerMm: number }
  | {
      do: 'blind';
      frames: readonly BlindFrame[];
      box: ViewBox;
      pxPerMm: number;
      levels: Levels;
    }
  | {
      do: 'measure';
      path: string;
      measure: PhotoMeasure;
      options: MeasureOptions;
      of: MeasuredRegion;
    };

export type PhotoOutcome = OrRefused<
  | { facts: PhotoFacts }
  | { found: FoundCorners }
  | { laid: RectifiedTiles }
  | { measured: Measured }
  /** JPEGs in the order of the frames. */
  | { blind: Uint8Array[] }
>;
