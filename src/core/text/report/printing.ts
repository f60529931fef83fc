import type { ReportedResults } from '../../answers/results';
import {
  contenderMarks,
  indexStudy,
  type ContenderMark,
  type Study,
  type StudyIndex,
} from '../../model/study';
import {
  figureNamesOf,
  figureWords,
  type FigureNames,
  type FigureWords,
} from '../../answers/figure-names';
import { printFigure, type FigureFormat, type PrintedFigure } from './figure';
import { labelOf } from './labels';

/** A study with its results, what its things are called, and how its figures are printed. */
export interface Printing {
  study: Study;
  index: StudyIndex;
  results: ReportedResults;
  marks: readonly ContenderMark[];
  names: FigureNames;
  reference: string | null;
  /** A contender's name: `Auklet 19 tuned`. */
  nameOf: (contender: string) => string;
  machineName: (machine: string) => string;
  machineOf: (contender: string) => string;
  /** A figure that a scorecard knows, in words. */
  wordsOf: (criterion: string) => FigureWords;
  /** A figure of the results, written; null where there is none at that address. */
  print: (address: string, format: FigureFormat) => PrintedFigure | null;
}

/** Makes a study and its results ready to be printed. */
export function openPrinting(study: Study, results: ReportedResults): Printing {
  const index = indexStudy(study);
  const { contenders, machines, profiles } = study.tables;
  const marks = contenderMarks(contenders, machines, profiles);
  const names = figureNamesOf(study);
  const naming = {
    index,
    names,
    nameOf: nameOfMarks(marks),
    machineName: (machine: string) => index.machines.get(machine)?.name ?? machine,
    wordsOf: (criterion: string) => figureWords(criterion, names),
  };
  return {
    study,
    results,
    marks,
    reference: results.study.reference,
    ...naming,
    machineOf: (contender) => index.contenders.get(contender)?.machine_id ?? '',
    print: (address, format) => printFigure(results, address, format, labelOf(naming, address)),
  };
}

/** Contenders by the names of their machines and what tells them apart. */
export const nameOfMarks =
  (marks: readonly ContenderMark[]) =>
  (contender: string): string => {
    const mark = marks.find((one) => one.contender_id === contender);
    return mark ? `${mark.machineName} ${mark.variant}` : contender;
  };
