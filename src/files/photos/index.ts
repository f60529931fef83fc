export { blindPictures, type BlindFrame } from './blind';
export { LEAST_PADDING, paddedJpeg } from './pad';
export { cornersOfPart } from './corners';
export { examinePhoto } from './examine';
export { layPhoto } from './lay';
export { measureOnPhoto } from './measure';
export { PictureError } from './pictures';
export type { MadePicture, PhotoOutcome, PhotoTask } from './task';
