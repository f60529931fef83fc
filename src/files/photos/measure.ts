import {
  measurePhoto,
  project,
  resampled,
  type Measured,
  type MeasureOptions,
  type PhotoMeasure,
  type Projection,
  type ViewBox,
} from '../../core/measures/image';
import { PictureError, pictureSize, readRegion, type PixelRegion } from './pictures';
import type { MeasuredRegion } from './task';

/**
 * Measures a region of a photo on disk; one in millimetres of its view is resampled at the scale of
 * the photo itself.
 *
 * @throws PictureError, also where the region is not within the photo
 */
export async function measureOnPhoto(
  path: string,
  measure: PhotoMeasure,
  options: MeasureOptions,
  of: MeasuredRegion,
): Promise<Measured> {
  if (of.unit === 'px') {
    const { raster } = await readRegion(path, of.region);
    return measurePhoto(measure, raster, options);
  }
  const region = pixelsAround(of.toPicture, of.region);
  const size = await pictureSize(path);
  const left = Math.max(0, region.x);
  const top = Math.max(0, region.y);
  const read = {
    x: left,
    y: top,
    w: Math.min(size.width, region.x + region.w) - left,
    h: Math.min(size.height, region.y + region.h) - top,
  };
  if (read.w < 1 || read.h < 1) throw new PictureError('does not show the region');
  const { raster } = await readRegion(path, read);
  const origin = { x: read.x, y: read.y };
  const seen = resampled(raster, of.toPicture, of.region, options.px_per_mm, origin);
  if (seen.data.some(Number.isNaN)) {
    throw new PictureError('shows only a part of the region: make it smaller, or move it');
  }
  return measurePhoto(measure, seen, options);
}

/** The pixels of a photo that show a rectangle of its view, and one more to each side. */
function pixelsAround(toPicture: Projection, { x, y, w, h }: ViewBox): PixelRegion {
  const corners = [
    { x, y },
    { x: x + w, y },
    { x: x + w, y: y + h },
    { x, y: y + h },
  ].map((corner) => project(toPicture, corner));
  const [us, vs] = [corners.map((corner) => corner.x), corners.map((corner) => corner.y)];
  const [left, top] = [Math.floor(Math.min(...us)) - 2, Math.floor(Math.min(...vs)) - 2];
  return {
    x: left,
    y: top,
    w: Math.ceil(Math.max(...us)) + 2 - left,
    h: Math.ceil(Math.max(...vs)) + 2 - top,
  };
}
