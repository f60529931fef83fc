import { WrongInputError } from '../../model/faults';
import {
  areaRatio,
  fitAffine,
  fitHomography,
  fitSimilarity,
  inverted,
  project,
  roundness,
  type Point,
  type PointPair,
  type Projection,
} from './projection';

/** A pixel of a photo, from its upper left, and the point of the view, mm, that it shows. */
export interface Mark {
  u_px: number;
  v_px: number;
  x_mm: number;
  y_mm: number;
}

/** A rectangle of a view, mm, y upwards. */
export interface ViewBox {
  x: number;
  y: number;
  w: number;
  h: number;
}

/** How a photo lies on a view of its artefact. */
export interface Registration {
  kind: 'similarity' | 'affine' | 'homography';
  /** From pixels (v downwards) to the view's millimetres (y upwards), and back. */
  toView: Projection;
  toPicture: Projection;
  /** Pixels a millimetre at the middle of the view. */
  px_per_mm: number;
  /** How far the marks lie from where the mapping puts them, mm, rms; null where none can be over. */
  misfit_mm: number | null;
  /** By what angle the view would be turned away from the camera to look like this, degrees. */
  tilt_deg: number;
}

/** Marks from which no mapping follows; the message says why and what to do. */
export class RegistrationError extends WrongInputError {
  override name = 'RegistrationError';
}

/** Marks nearer than this are one point: pixels, and millimetres. */
const NEAREST_PX = 2;
const NEAREST_MM = 0.05;
/** A triangle flatter than this, height by longest side, is a line. */
const FLATTEST = 0.02;

/**
 * Ties a photo to a view by marks: two give scale, turn and shift, three what keeps lines parallel,
 * four or more what keeps lines straight.
 *
 * @param box the view's rectangle, in whose middle the scale is told
 * @throws RegistrationError where the marks are too few, on one point, on a line or turned inside out
 */
export function register(marks: readonly Mark[], box: ViewBox): Registration {
  checkApart(marks);
  // Pixels run downwards and millimetres upwards: turned over, a photo is not mirrored.
  const pairs = marks.map(({ u_px, v_px, x_mm, y_mm }): PointPair => ({
    from: { x: u_px, y: -v_px },
    to: { x: x_mm, y: y_mm },
  }));
  if (pairs.length > 2) checkOffLine(pairs);
  const kind = KINDS[Math.min(pairs.length, 4) - 2] ?? 'homography';
  const upright = FITS[kind](pairs);
  const toView = upright.map((value, at) => (at % 3 === 1 ? -value : value));
  const toPicture = inverted(toView);
  const middle = { x: box.x + box.w / 2, y: box.y + box.h / 2 };
  const ratios = [middle, ...marks.map(({ x_mm, y_mm }) => ({ x: x_mm, y: y_mm }))].map((point) =>
    areaRatio(toPicture, point),
  );
  if (!ratios.every((ratio) => Number.isFinite(ratio) && ratio < 0)) {
    throw new RegistrationError(
      'the marks are turned inside out: two of them are exchanged, or one is at the wrong point',
    );
  }
  return {
    kind,
    toView,
    toPicture,
    px_per_mm: Math.sqrt(-(ratios[0] ?? -1)),
    misfit_mm: pairs.length > 4 ? rms(pairs.map((pair) => distance(upright, pair))) : null,
    tilt_deg: (Math.acos(Math.min(1, roundness(toPicture, middle))) * 180) / Math.PI,
  };
}

const KINDS = ['similarity', 'affine', 'homography'] as const;
const FITS = { similarity: fitSimilarity, affine: fitAffine, homography: fitHomography } as const;

const distance = (projection: Projection, { from, to }: PointPair): number => {
  const { x, y } = project(projection, from);
  return Math.hypot(x - to.x, y - to.y);
};

const rms = (values: readonly number[]): number =>
  Math.sqrt(values.reduce((sum, value) => sum + value ** 2, 0) / values.length);

function checkApart(marks: readonly Mark[]): void {
  if (marks.length < 2) {
    throw new RegistrationError('a photo is tied to a view by two marks at least');
  }
  marks.forEach((mark, at) => {
    const near = marks.findIndex(
      (other, place) =>
        place < at &&
        (Math.hypot(mark.u_px - other.u_px, mark.v_px - other.v_px) < NEAREST_PX ||
          Math.hypot(mark.x_mm - other.x_mm, mark.y_mm - other.y_mm) < NEAREST_MM),
    );
    if (near !== -1) {
      throw new RegistrationError(
        `marks ${near + 1} and ${at + 1} are on one point: move one of them away`,
      );
    }
  });
}

/** Three marks, and of four or more the widest spread of them, must not be on a line. */
function checkOffLine(pairs: readonly PointPair[]): void {
  for (const side of ['from', 'to'] as const) {
    const points = pairs.map((pair) => pair[side]);
    // A mapping that keeps lines straight needs four points, so one may be left out and still no line.
    const isFlat =
      points.length === 3
        ? flatness(points) < FLATTEST
        : points.some((_, left) => flatness(points.filter((__, at) => at !== left)) < FLATTEST);
    if (isFlat) {
      throw new RegistrationError(
        points.length === 3
          ? 'the marks are on a line: set one of them away from it'
          : 'all marks but one are on a line: set another one away from it, or leave some out',
      );
    }
  }
}

/** How far points are from being on a line: the largest triangle's height by its longest side. */
function flatness(points: readonly Point[]): number {
  let [longest, a, b] = [0, points[0], points[0]];
  for (const one of points) {
    for (const other of points) {
      const length = Math.hypot(one.x - other.x, one.y - other.y);
      if (length > longest) [longest, a, b] = [length, one, other];
    }
  }
  if (!a || !b || longest === 0) return 0;
  const [dx, dy] = [(b.x - a.x) / longest, (b.y - a.y) / longest];
  const { x, y } = a;
  return Math.max(...points.map((p) => Math.abs((p.x - x) * dy - (p.y - y) * dx))) / longest;
}
