export { blindPictures, type BlindFrame, type Levels } from './blind';
export { LEAST_PADDING, paddedJpeg } from './pad';
export { cornersOfPart } from './corners';
export { examinePhoto } from './examine';
export { layPhoto } from './lay';
export { measureOnPhoto } from './measure';
export { PictureError } from './pictures';
export type {
  FoundCorners,
  LaidTiles,
  MadePicture,
  MeasuredRegion,
  PhotoFacts,
  PhotoOutcome,
  PhotoTask,
} from './task';
