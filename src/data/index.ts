export { SteadyClient } from './steady-client';
export { databaseName, isReachable, openDatabase, type Database } from './database';
export { ConflictError, isDatabaseAway, isDiskFull, NotFoundError, RefusedError } from './errors';
export { KNOWN_MIGRATIONS, migrate, NewerDatabaseError } from './migrate';
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
  movePhoto,
  findPart,
  findPicture,
  insertPicture,
  listPictures,
  pathOfPicture,
  replaceParts,
  setRectification,
  setPicture,
  setTold,
  unmadePictures,
  type Picture,
  type PicturePart,
} from './repositories/pictures';
export {
  deletePasskey,
  findProof,
  insertPasskey,
  keepChallenge,
  lockPerson,
  listPasskeys,
  notePasskeyUsed,
  proofsOf,
  useChallenge,
  type Passkey,
  type PasskeyProof,
} from './repositories/passkeys';
export {
  beginJudge,
  bookBallots,
  findPanelPicture,
  findPanelRun,
  insertPanelJudge,
  insertPanelRun,
  judgeOfToken,
  keepChoice,
  listPanelItems,
  listPanelJudges,
  noteAsked,
  openPanels,
  countFromAddress,
  insertPanelCards,
  judgeOfId,
  listPanelCards,
  setCardJudge,
  setPerAddress,
  type PanelCard,
  panelOfLink,
  panelsWith,
  questionsOfJudge,
  questionsOfPanel,
  replacePanelItems,
  setJudgeEnded,
  setPanelPicture,
  takeOutItem,
  type AskedQuestion,
  type PanelItem,
  type Panelist,
  type PanelJudge,
} from './repositories/panels';
export {
  addRevision,
  askAgain,
  dropRevision,
  failRevision,
  figuresBefore,
  findAddress,
  findReport,
  findReportFile,
  findRevision,
  finishRevision,
  listRevisions,
  publishRevision,
  setReportName,
  setRevisionStep,
  studyOfAddress,
  unmadeRevisions,
  withdrawRevision,
  type ReportAddress,
  type ReportFile,
  type Revision,
} from './repositories/reports';
export {
  artefactsEverywhere,
  featuresOfMachines,
  incidentsOfMachines,
  materialsUsed,
  printsOfMachines,
  type AnyArtefact,
} from './repositories/workshop';
export { findAnything, type FoundRow } from './repositories/finding';
export { tieRows } from './repositories/ties';
export {
  addItem,
  findItem,
  keptIds,
  knownItems,
  listItems,
  mergedInto,
  mergeItems,
  pairsApart,
  setThingDeleted,
  splitItem,
  tellApart,
  thingCalled,
  itemsOfStudy,
  updateItem,
  usesOfThings,
  type Merged,
  type CatalogueItem,
  type ItemUse,
} from './repositories/things';
export { copyBeginning } from './repositories/copy';
export { listHistory } from './repositories/history';
export {
  findImport,
  hasImports,
  insertImport,
  lockImport,
  storeStudy,
} from './repositories/import';
export {
  brokenReading,
  findReadings,
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
  type WantedResult,
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
  loadSentStudy,
  loadStudy,
  metaOfRecord,
  DEMO_KEY,
  deletedDemo,
  deleteDemo,
  restoreDemo,
  restoreStudy,
  shelveStudy,
  studiesNamed,
  revisionOf,
  standingOf,
  binnedStudies,
  emptyBin,
  type BinnedStudy,
  type Standing,
  updateStudy,
  type StudySummary,
} from './repositories/studies';
export { activeStudies, type ActiveStudy } from './repositories/desk';
export { countProgress, type ProgressCounts } from './repositories/progress';
export type { StudyRecord } from './models/study';
export { brokenReferences, machineOfPrint, rowsNaming } from './repositories/references';
export {
  endPrint,
  eventsOfPrint,
  isPrinted,
  latestIncidents,
  incompletePrints,
  lastPrintOf,
  latestPrints,
  openPrintOfMachine,
  printedPlaces,
  printOfId,
  printsOfMachine,
  tallyPrints,
  wallClocks,
  type IncompletePrint,
  type CellTally,
  type WallClock,
} from './repositories/prints';
export {
  codedSpecimens,
  listSpecimenFacts,
  placedSpecimens,
  specimenMeasurements,
  specimenOfCode,
  type SpecimenFacts,
  type SpecimenMeasurements,
} from './repositories/specimens';
export { giveLetters, machineOfContender, setFirmwareBefore } from './repositories/line-up';
export {
  DELETABLE,
  deleteWhole,
  forgetDeletions,
  listDeletions,
  lookAtDeletion,
  restoreWhole,
  type Deletable,
  type DeletedCount,
  type Deletion,
} from './repositories/deletions';
export { stickerCodes, withStickers } from './repositories/stickers';
export {
  appendUpload,
  beginUpload,
  dropOldUploads,
  dropUpload,
  finishUpload,
  uploadBegunBy,
  verifyUpload,
  type Upload,
} from './repositories/uploads';
export {
  deleteSlicedFile,
  estimateOfFile,
  filamentOfFile,
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
  countStranger,
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
export { actingAs } from './actor';
export { alreadyKept, doneOnce, forgetAnswers, keepAnswer, type OnceKey } from './once';
export type { LastingConnection } from './lasting-connection';
export { listenToStudies, type StudyChange } from './news';
export { holdLock, oneAtATime } from './held-lock';
export {
  beginJob,
  countJobs,
  countKeptResults,
  jobsBegunBy,
  listOrphans,
  openJobKeys,
} from './repositories/jobs-at-work';
export {
  changePerson,
  findByName,
  findPerson,
  hasOwner,
  insertPerson,
  listPeople,
  setPassword,
  type Person,
} from './repositories/people';
export {
  endSession,
  findKey,
  findLink,
  findSession,
  IDLE_DAYS,
  insertKey,
  insertLink,
  insertSession,
  listKeys,
  listSessions,
  revokeKey,
  useLink,
  type AccessKey,
  type AccessLink,
  type Session,
} from './repositories/sessions';
export { listAccess, logAccess, type AccessEntry } from './repositories/access-log';
export { enteredBy } from './repositories/entered';
export {
  asItStands,
  brokenConstraints,
  damagedContents,
  countTables,
  dropDatabase,
  emptyDatabase,
  makeDatabase,
  isEmptyDatabase,
  migrationsOf,
  NOT_KEPT,
  sumTables,
} from './repositories/backup';
export {
  databaseBytes,
  isReadBackDue,
  lastBackups,
  lastReadBack,
  noteReadBack,
  noteBackup,
  type MadeBackup,
} from './repositories/backups';
