export { FIGURE_OF, measurePhoto, type PhotoMeasure } from './measure';
export type { Measured, MeasureOptions, MeasureValue } from './measured';
export { encoded, linear, luminanceOf, type Pixels, type Raster } from './raster';
