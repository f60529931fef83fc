import type { PHOTO_MEASURES } from '../../model/study';
import { gaps, texture } from './gaps';
import { layerLines } from './layer-lines';
import type { Measured, MeasureOptions } from './measured';
import type { Raster } from './raster';
import { ringing } from './ringing';
import { strings } from './strings';

export type PhotoMeasure = (typeof PHOTO_MEASURES)[number];

const MEASURES: Record<PhotoMeasure, (raster: Raster, options: MeasureOptions) => Measured> = {
  'layer-lines': layerLines,
  ringing,
  strings,
  gaps,
  texture,
};

/** The value of each measure that is its figure: what a specimen is compared by. */
export const FIGURE_OF: Readonly<Record<PhotoMeasure, string>> = {
  'layer-lines': 'banding_contrast',
  ringing: 'amplitude',
  strings: 'coverage_share',
  gaps: 'gap_share',
  texture: 'texture_contrast',
};

/**
 * Measures a region of a photo.
 *
 * @param raster luminance of the region, at least one pixel
 * @throws RangeError where the scale is not over 0
 */
export function measurePhoto(
  measure: PhotoMeasure,
  raster: Raster,
  options: MeasureOptions,
): Measured {
  if (!(options.px_per_mm > 0) || !Number.isFinite(options.px_per_mm)) {
    throw new RangeError('the scale must be over 0 pixels a millimetre');
  }
  const measured = MEASURES[measure](raster, options);
  return raster.data.some((value) => value > 0)
    ? measured
    : { ...measured, notes: [...measured.notes, 'the region is black'] };
}
