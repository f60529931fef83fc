export {
  FIGURE_OF,
  measurePhoto,
  type Measured,
  type MeasureOptions,
  type MeasureValue,
  type PhotoMeasure,
} from './measure';
export { encoded, linear, luminanceOf, type Pixels, type Raster } from './raster';
