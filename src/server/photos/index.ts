export { filePhotos, filingSchema, removePhoto, toldSchema } from './filing';
export { carryMarks, marksSchema, setMarks } from './marks';
export { measureOn, measureSchema, removeMeasure } from './measures';
export {
  photosData,
  type PhotosData,
  type ShownMeasure,
  type ShownPhoto,
  type Views,
} from './page';
export { proposeMarks, type Proposal } from './proposal';
export { openOriginal, openPart } from './shown';
export { settingsOfContenders } from './settings';
export { PHOTO_UPLOADS } from './uploads';
