export { announcedSchema } from './doors';
export { uploadEndpoints } from './endpoints';
export { announceFile, type Announced, type Arrival, type Told, type UploadKind } from './uploads';
