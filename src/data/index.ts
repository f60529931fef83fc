export { SteadyClient } from './steady-client';
export { openDatabase, type Database } from './database';
export { ConflictError, isDatabaseAway, NotFoundError, RefusedError } from './errors';
export { migrate } from './migrate';
export { isUuid, transact, writeStudy, type Write } from './write';
export {
  dropUnnamedContent,
  findFile,
  freePath,
  linkFile,
  listFiles,
  readFile,
  storeContent,
  storeSmallContents,
  type StudyFile,
} from './repositories/files';
export {
  deletePicture,
  findPart,
  findPicture,
  insertPicture,
  listPictures,
  pathOfPicture,
  replaceParts,
  setLaid,
  setPicture,
  setTold,
  unmadePictures,
  type LaidView,
  type Picture,
  type PicturePart,
  type SeenCode,
  type ToldOfPhoto,
} from './repositories/pictures';
export { listHistory } from './repositories/history';
export {
  findImport,
  hasImports,
  insertImport,
  lockImport,
  storeStudy,
  type IncomingStudy,
} from './repositories/import';
export {
  insertReadings,
  listReadings,
  supersedeReading,
  type StoredReading,
} from './repositories/readings';
export {
  dropOtherEditions,
  findResults,
  storeResults,
  type KeptResult,
} from './repositories/results';
export {
  deleteRepeatable,
  deleteRow,
  findRow,
  insertRow,
  listRows,
  listRowsBy,
  listTables,
  rowOrNull,
  updateRow,
  type RowKey,
  type Stored,
} from './repositories/rows';
export {
  countStudies,
  createStudy,
  deleteStudy,
  findStudy,
  listStudies,
  loadStudy,
  metaOfRecord,
  restoreStudy,
  revisionOf,
  updateStudy,
  type LoadedStudy,
  type StudySummary,
} from './repositories/studies';
export { countProgress, type ProgressCounts } from './repositories/progress';
export type { StudyRecord } from './models/study';
export {
  brokenReferences,
  machineOfPrint,
  rowsNaming,
  type BrokenReference,
} from './repositories/references';
export {
  endPrint,
  eventsOfPrint,
  isPrinted,
  latestIncidents,
  latestPrints,
  openPrintOfMachine,
  printedPlaces,
  printOfId,
  printsOfMachine,
  tallyPrints,
  wallClocks,
  type CellTally,
  type WallClock,
} from './repositories/prints';
export {
  listSpecimenFacts,
  specimenMeasurements,
  specimenOfCode,
  stickerCodes,
  type SpecimenFacts,
  type SpecimenMeasurements,
} from './repositories/specimens';
export {
  appendUpload,
  beginUpload,
  dropOldUploads,
  dropUpload,
  finishUpload,
  verifyUpload,
  type Upload,
} from './repositories/uploads';
export {
  deleteSlicedFile,
  estimateOfFile,
  findSlicedFile,
  insertSlicedFile,
  isStored,
  listSlicedFiles,
  pathOfContent,
  setFacts,
  setPurpose,
  setReading,
  setReadShare,
  slicedFacts,
  unreadFiles,
  type SlicedFile,
  type SlicedSummary,
} from './repositories/sliced-files';
export {
  countDropped,
  linkState,
  lockLinkMachine,
  setLinked,
  setLinkMachine,
  setLinkUp,
  studyOfMachine,
  type LinkMachine,
  type LinkState,
} from './repositories/link';
export { listChanges } from './repositories/changes';
export { findMeshSheet, storeMeshSheet } from './repositories/mesh-sheets';
export { bePresent, type Presence } from './presence';
