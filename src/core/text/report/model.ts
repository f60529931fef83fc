import type { Verdict } from '../../statistics/compare';
import type { Card, EvidenceOfCriteria } from '../../answers/scorecard';
import type { ContenderMark, ReportPart } from '../../model/study';
import type { PrintedFigure } from './figure';

/** A piece of a line: text, a figure, a contender by its id, or words that stand out. */
export type Inline =
  string | { figure: PrintedFigure } | { contender: string } | { strong: string };
export type Text = readonly Inline[];

/** A cell of a table: what stands in it, or why nothing is known. */
export type Cell = { text: Text } | { unknown: string };

/** A contender's row of a chart. */
export interface ChartRow {
  contender: string;
  figure: PrintedFigure | null;
  /** What no number says, or why there is none. */
  instead: string;
  /** One for each specimen, or print. */
  dots: readonly number[];
  verdict: Verdict | null;
  prints_needed: number | null;
  /** Not there in a report of an earlier form. */
  prints_as_seen?: number | null;
}

/** One figure of everyone on one scale. */
export interface Chart {
  id: string;
  /** As a scorecard knows the figure. */
  criterion: string;
  title: string;
  unit: string;
  isLargerBetter: boolean | null;
  /** What it shows, in a sentence. */
  sentence: string;
  scale: readonly [number, number];
  /** What would not matter about the reference. */
  band: readonly [number, number] | null;
  rows: readonly ChartRow[];
}

/** The same place on every contender, on photos that are laid onto the artefact's view. */
export interface PhotoRow {
  id: string;
  title: string;
  /** Where it lies, how it was lit, how fine it is. */
  where: string;
  /** Name of the place's rectangle on the view, mm. */
  box: { x: number; y: number; w: number; h: number };
  frames: readonly {
    contender: string;
    specimen_id: string;
    /** Path of the photo in the study. */
    source: string;
    /** Name of the picture in the report. */
    file: string;
    figure: PrintedFigure | null;
  }[];
}

/** A sentence that a person stands for, with the figures that it rests on. */
export interface ReportSentence {
  verdict_id: string;
  contender: string | null;
  text: string;
  citations: readonly Tie[];
}

/** A figure that a sentence rests on, in a few words. */
export interface Tie {
  address: string;
  text: Text;
  /** Whether it decides something: a difference that is shown. */
  isDecided: boolean;
}

export type Block =
  | { kind: 'answer'; sentences: readonly ReportSentence[] }
  | {
      kind: 'said';
      title: string;
      tone: 'plain' | 'for' | 'against' | 'holds';
      items: readonly ReportSentence[];
    }
  | { kind: 'text'; text: Text }
  /** Sentences that the program makes of the results; each has a name by which it can be made again. */
  | { kind: 'made'; title: string | null; sentences: readonly MadeSentence[] }
  | { kind: 'list'; title: string | null; items: readonly Text[] }
  | { kind: 'glance'; charts: readonly string[] }
  | { kind: 'chart'; chart: string }
  | { kind: 'photos'; row: string }
  | {
      kind: 'table';
      caption: string;
      /** Of the columns after the first. */
      heads: readonly Text[];
      rows: readonly { head: Text; cells: readonly Cell[] }[];
    }
  | { kind: 'drawings'; items: readonly ArtefactDrawing[] }
  | { kind: 'card' }
  | { kind: 'data' };

/** A sentence that follows from the results. */
export interface MadeSentence {
  name: string;
  text: string;
}

/** An artefact as its mesh shows it from the front, with what is looked at on it. */
export interface ArtefactDrawing {
  name: string;
  note: string;
  /** Path data of the lines that are seen, in mm, and the rectangle that they fill; null without a mesh. */
  drawn: { path: string; x: number; y: number; w: number; h: number } | null;
}

export interface ReportSection {
  part: ReportPart;
  title: string;
  blocks: readonly Block[];
}

/** A scorecard with all that it weighs, so that a reader can weigh anew. */
export interface ReadersCard {
  card: Card;
  evidence: EvidenceOfCriteria;
  contenders: readonly string[];
  seed: number;
  /** By criterion: what it is called. */
  labels: Readonly<Record<string, string>>;
  /** The order as it is stated, with each contender's score, share of first places and turning price. */
  stated: readonly {
    contender: string;
    isIn: boolean;
    score: PrintedFigure | null;
    first: PrintedFigure | null;
    turning: PrintedFigure | null;
    /** Why there is no such price, where there is none. */
    why: string;
  }[];
}

/** A figure that is another now. */
export interface MovedFigure {
  address: string;
  /** What it is, in words. */
  label: string;
  then: string;
  now: string;
  /** Its verdict is another, or its value lies beyond the interval that it had. */
  why: 'verdict' | 'value';
}

/** What is different between two revisions. */
export interface RevisionChanges {
  from: number;
  to: number;
  figures: MovedFigure[];
  /** Figures without an interval, counts and medians, that are printed otherwise. */
  others: number;
  /** Figures that only one of them has. */
  added: number;
  gone: number;
  words: { kind: 'added' | 'gone' | 'changed'; then: string | null; now: string | null }[];
  /** By table: rows then and now. */
  data: { table: string; then: number; now: number }[];
  /** Whether anything in the data is another, also where the numbers of rows are the same. */
  isSameData: boolean;
}

/** What the data of a report are: the package that goes with it. */
export interface ReportData {
  sha256: string;
  bytes: number;
  /** By table: how many rows. */
  tables: Readonly<Record<string, number>>;
  /** By file in it: its SHA-256. */
  files: Readonly<Record<string, string>>;
}

/** A report: words, figures and pictures as they stood when it was frozen. */
export interface ReportModel {
  format: 1;
  /** The study's own name, of which file names are made. */
  name: string;
  title: string;
  question: string | null;
  author: string | null;
  number: number;
  /** When it was frozen, ISO 8601. */
  frozen_at: string;
  evaluation: { alpha: number; seed: number; reference: string | null };
  contenders: readonly (ContenderMark & { isReference: boolean })[];
  sections: readonly ReportSection[];
  charts: readonly Chart[];
  photos: readonly PhotoRow[];
  card: ReadersCard | null;
  /** Against the revision before; null for the first. */
  since: RevisionChanges | null;
  data: ReportData;
}

/** The figures and words of a revision, as they travel in `figures.json`. */
export interface RevisionFigures {
  format: 1;
  /** Which words and layout the page has: one of another edition is compared by its figures alone. */
  edition: number;
  title: string;
  number: number;
  frozen_at: string;
  evaluation: ReportModel['evaluation'];
  data: ReportData;
  figures: readonly PrintedFigure[];
  /** What the program says by itself. */
  sentences: readonly MadeSentence[];
  words: readonly { verdict_id: string; kind: string; text: string; rests_on: readonly string[] }[];
  /** What changed since the revision before: of that one nothing is in the data. */
  since?: ReportModel['since'] | undefined;
  /** SHA-256 of every other file of the report, by its path. */
  files?: Readonly<Record<string, string>> | undefined;
  /** SHA-256 of the program's code that made the pages: the same code makes the same bytes. */
  maker?: string | undefined;
}
