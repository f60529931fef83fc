export { ALLOWANCE, isAtLeast, isAtMost } from './allowance';
export { clockOf, minutesOf, twoDigits } from './clock';
export { smallestDifference } from './smallest';
export { PART_TITLES, REPORT_PARTS, type ReportPart } from './report-parts';
export { type ReportSettings } from './report-settings';
export { quote, readCell } from './cells';
export * from './catalogues';
export { columnsOf, type Column } from './columns';
export {
  cardsOf,
  emptyTables,
  isCriterion,
  scorecardSchema,
  sweepSchema,
  smallestDifferenceSchema,
  studyMetaSchema,
  vergleichSchema,
  type Study,
  type StudyMeta,
  type Tables,
} from './study';
export { cellText, openSentStudy, sentColumns, type SentStudy } from './sent-study';
export { fullRow } from './full-row';
export { partsOfStratum } from './strata';
export {
  asColumns,
  isTableName,
  readRow,
  rowsAsColumns,
  tableOfReference,
  tablesOf,
} from './any-row';
export { groupBy } from './grouping';
export { fieldOf, isOneOf, keysOf, recordOf } from './records';
export { indexStudy, withinArtefact, type StudyIndex } from './study-index';
export {
  TABLE_NAMES,
  TABLES,
  tableOfFile,
  tableSpec,
  type AnyRow,
  type Artefact,
  type Contender,
  type Dimension,
  type Incident,
  type Instrument,
  type Machine,
  type Material,
  type Print,
  type Reading,
  type Reference,
  type Row,
  type Specimen,
  type TableName,
} from './tables';
export { isPlainText, plainText, plainValue } from './plain-text';
export {
  instant,
  MOST_PLANNED,
  MOST_QUESTIONS,
  MOST_TRIALS,
  time,
  id,
  isInsidePath,
  isIsoTime,
} from './values';
export { contenderMarks, freeLetter, lettersOf, type ContenderMark } from './marks';
export { idFrom } from './ids';
export { columnLabel, columnWords, counted, inWords } from './labels';
export { nextCodes, withOwnCodes, type RenamedCode } from './codes';
export {
  isKnownSetting,
  isProcessSetting,
  normaliseSetting,
  PART_SETTINGS,
  commonPart,
  plainName,
  statedPurpose,
  type Settings,
  type SettingValue,
} from './settings';
export { readTypedNumber } from './typed-number';
