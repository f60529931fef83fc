export {
  confirmPurpose,
  confirmPurposes,
  purposeIn,
  readAgain,
  slicedFileOf,
  slicedFilesOf,
  takeOutFile,
} from './sliced-files';
export { SLICED_UPLOADS } from './uploads';
