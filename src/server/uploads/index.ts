export { announcedSchema } from './doors';
export { uploadEndpoints } from './endpoints';
export { announceFile, type UploadKind } from './uploads';
