export { buildReport, EDITION, revisionFigures, type RevisionFacts } from './build';
export { caveatsOf, type Caveat } from './caveats';
export { changesBetween, movedTies, said as saidFigure, type TiedFigure } from './changes';
export { openReport, type ReportContext } from './context';
export { labelOf } from './labels';
export { nameOfMarks } from './printing';
export { textOf, tieOf } from './ties';
export { writeFigure, type PrintedFigure } from './figure';
export type {
  ArtefactDrawing,
  Block,
  Cell,
  Chart,
  ChartRow,
  Inline,
  MadeSentence,
  MovedFigure,
  PhotoRow,
  ReadersCard,
  ReportData,
  ReportModel,
  ReportSection,
  RevisionChanges,
  RevisionFigures,
  SaidSentence,
  Text,
  Tie,
} from './model';
export { proposalsOf, type Proposal } from './proposals';
export { publishable, type PublishedFiles } from './publishable';
export { readinessOf, type Finding } from './readiness';
export { studyUntil } from './until';
export { saidDeparture, verifyFigures, type Departure, type Verification } from './verify';
