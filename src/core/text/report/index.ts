export { buildReport, EDITION, revisionFigures } from './build';
export { caveatsOf, type Caveat } from './caveats';
export { changesBetween, movedTies } from './changes';
export { openReport, type ReportContext } from './context';
export { labelOf } from './labels';
export { nameOfMarks } from './printing';
export { textOf, tieOf } from './citations';
export { writeFigure } from './figure';
export type {
  ArtefactDrawing,
  Block,
  Cell,
  Chart,
  ChartRow,
  Inline,
  PhotoRow,
  ReadersCard,
  ReportData,
  ReportModel,
  RevisionChanges,
  RevisionFigures,
  ReportSentence,
  Text,
  Tie,
} from './model';
export { proposalsOf, type Proposal } from './proposals';
export { publishable } from './publishable';
export { readinessOf, type Finding } from './readiness';
export { studyUntil } from './until';
export { describeDeparture, verifyFigures, type Departure, type Verification } from './verify';
