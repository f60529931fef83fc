export { comparedFiles, MOST_COMPARED } from './compare-page';
export { filePage } from './page';
export {
  confirmPurpose,
  purposeIn,
  readAgain,
  slicedFileOf,
  slicedFilesOf,
  takeOutFile,
} from './sliced-files';
export { SLICED_UPLOADS } from './uploads';
