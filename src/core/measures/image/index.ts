export { contenderSettings, type ContenderSettings } from './contender-settings';
export { defectLook, type DefectName } from './defect-look';
export { FIGURE_OF, measurePhoto, type PhotoMeasure } from './measure';
export type { Measured, MeasureOptions, MeasureValue } from './measured';
export { inverted, project, type Point, type Projection } from './projection';
export {
  register,
  RegistrationError,
  type Mark,
  type Registration,
  type ViewBox,
} from './registration';
export {
  CARD,
  CARD_CORNERS,
  cardIn,
  cardText,
  scaleOfCard,
  type CardCorner,
  type CodeInPhoto,
  type FoundCard,
} from './card';
export { convexHull, cornersBeforePlain, fourOf, inOrder } from './outline';
export { resampled, warped } from './resample';
export { encoded, linear, luminanceOf, type Pixels, type Raster } from './raster';
