export { ALLOWANCE, isAtLeast, isAtMost } from './allowance';
export { clockOf, minutesOf, twoDigits } from './clock';
export { smallestDifference } from './smallest';
export { PART_TITLES, REPORT_PARTS, type ReportPart } from './report-parts';
export { reportSettingsSchema, type ReportSettings } from './report-settings';
export { quote, readCell, type CellResult } from './cells';
export * from './catalogues';
export { columnsOf, type Column } from './columns';
export {
  costSchema,
  emptyTables,
  isCriterion,
  scorecardSchema,
  sweepSchema,
  farmSchema,
  smallestDifferenceSchema,
  studyMetaSchema,
  vergleichSchema,
  type Study,
  type StudyMeta,
  type Tables,
} from './study';
export { cellText, openSentStudy, sentColumns, type SentStudy } from './sent-study';
export { fullRow, type KnownOf } from './full-row';
export { partsOfStratum } from './strata';
export { asColumns, isTableName, readRow, rowsAsColumns, tablesOf } from './any-row';
export { groupBy } from './grouping';
export { isOneOf, keysOf, recordOf } from './records';
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
  type OpenPrint,
  type Print,
  type Profile,
  type Reading,
  type Reference,
  type Row,
  type Specimen,
  type TableName,
  type TableSpec,
} from './tables';
export { isPlainText, plainText, plainValue } from './plain-text';
export {
  ID_PATTERN,
  instant,
  MOST_JUDGES,
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
  plainName,
  saidPurpose,
  type Settings,
  type SettingValue,
} from './settings';
export { readTypedNumber, type TypedNumber, type TypedNumberOptions } from './typed-number';
