export { comparedFiles, MOST_COMPARED } from './compare-page';
export { filePage } from './page';
export {
  confirmPurpose,
  readAgain,
  slicedFileOf,
  slicedFilesOf,
  takeOutFile,
} from './sliced-files';
export { announceFile, giveUpUpload, LARGEST_SLICED, takeBytes } from './uploads';
