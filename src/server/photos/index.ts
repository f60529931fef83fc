export { filePhotos, filingSchema, removePhoto, toldSchema } from './filing';
export { carryMarks, marksSchema, setMarks, type ToldTie } from './marks';
export {
  measureOn,
  measureSchema,
  removeMeasure,
  type KeptMeasure,
  type MeasureAsked,
} from './measures';
export {
  photosData,
  type PhotosData,
  type ShownMeasure,
  type ShownPhoto,
  type ShownTie,
  type Views,
} from './page';
export { proposeMarks, type Proposal } from './proposal';
export { openOriginal, openPart } from './shown';
export { settingsOfContenders } from './settings';
export { PHOTO_UPLOADS } from './uploads';
