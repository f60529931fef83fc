export {
  announceFile,
  giveUpUpload,
  takeBytes,
  type Announced,
  type Arrival,
  type UploadKind,
} from './uploads';
export { announcedSchema, digestOf, offsetOf } from './doors';
