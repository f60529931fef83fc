export { openDatabase, type Database } from './database';
export { ConflictError, NotFoundError, RefusedError } from './errors';
export { migrate } from './migrate';
export { listFiles, readFile, storeFile, type StudyFile } from './repositories/files';
export { storeStudy } from './repositories/import';
export {
  appendReading,
  appendReadings,
  listReadings,
  supersedeReading,
  type StoredReading,
} from './repositories/readings';
export { findResults, keepResults, type KeptResult } from './repositories/results';
export {
  deleteRow,
  findRow,
  insertRow,
  listRows,
  updateRow,
  type RowKey,
  type VersionedRow,
} from './repositories/rows';
export {
  createStudy,
  deleteStudy,
  findStudy,
  listStudies,
  loadStudy,
  metaOfRecord,
  raiseRevision,
  restoreStudy,
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
  endPrintWithin,
  eventsOfPrint,
  filesOfContenders,
  latestIncidents,
  latestPrints,
  openPrintOfMachine,
  printedPlaces,
  printsOfMachine,
  tallyPrints,
  wallClocks,
  type CellTally,
  type WallClock,
} from './repositories/prints';
export {
  listSpecimenFacts,
  specimenMeasurements,
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
  type Upload,
} from './repositories/uploads';
export {
  addSlicedFile,
  estimateOfFile,
  findSlicedFile,
  isStored,
  keepFacts,
  linkStored,
  listSlicedFiles,
  pathOfContent,
  removeSlicedFile,
  setPurpose,
  setReading,
  slicedFacts,
  unreadFiles,
  type SlicedFile,
  type SlicedSummary,
} from './repositories/sliced-files';
export {
  countDropped,
  keepLinkMachine,
  linkState,
  lockLinkMachine,
  setLinked,
  setLinkUp,
  studyOfMachine,
  type LinkMachine,
  type LinkState,
} from './repositories/link';
export { change as inChange } from './database';
export { listChanges } from './repositories/changes';
export type { Transaction } from 'sequelize';
export { findMeshSheet, keepMeshSheet } from './repositories/mesh-sheets';
