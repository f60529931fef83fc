import type { Study } from '../../model/study';
import { addressesIn, restsOn } from '../../answers/figure-address';
import { figureAt, type FoundFigure, type ReportedResults } from '../../answers/results';
import { EDITION, madeSentences, printedFigures } from './build';
import type { ReportContext } from './context';
import { NOTHING, STATED_DIGITS, writeFigure } from './figure';
import type { ReportModel, RevisionFigures } from './model';

/** Something of a report that does not follow from its data. */
export interface Departure {
  what: 'figure' | 'sentence' | 'words' | 'data' | 'page' | 'head' | 'file';
  /** Its address or its name. */
  where: string;
  stated: string;
  found: string;
}

export interface Verification {
  /** Figures that were compared, and those that follow. */
  figures: number;
  follow: number;
  departures: Departure[];
}

/** Whether a number that is stated in so many digits is the one that was found. */
function isSame(stated: number | null, found: number | null): boolean {
  if (stated === null || found === null) return stated === found;
  const unit = 10 ** (Math.floor(Math.log10(Math.abs(stated) || NOTHING)) - STATED_DIGITS + 1);
  // Half a unit of the last digit comes of rounding, and a hair of other machines' arithmetic.
  return Math.abs(stated - found) <= Math.max(0.500001 * unit, NOTHING);
}

const same = (stated: FoundFigure, found: FoundFigure): boolean =>
  isSame(stated.value, found.value) &&
  isSame(stated.low, found.low) &&
  isSame(stated.high, found.high) &&
  stated.word === found.word;

const digits = (value: number): string => String(Number(value.toPrecision(STATED_DIGITS)));

/** A figure with all that is stated of it, in full. */
const inFull = ({ value, low, high, word }: FoundFigure): string =>
  [
    ...(value === null ? [] : [digits(value)]),
    ...(low === null || high === null ? [] : [`(${digits(low)} … ${digits(high)})`]),
    ...(word === null ? [] : [word]),
  ].join(' ') || 'not known';

/**
 * Compares what a revision states with what follows from its data: every figure in value, interval,
 * verdict and in how it is printed; the sentences that the program makes; the words and their citations.
 * What this program calls things is compared where it made the report.
 *
 * @param context the study in the report's data with what follows from it, by the same settings
 * @param model the report that is made of it
 */
export function verifyFigures(
  stated: RevisionFigures,
  { study, results }: ReportContext,
  model: ReportModel,
): Verification {
  const isOwn = stated.edition === EDITION;
  const labels = new Map(printedFigures(model).map(({ address, label }) => [address, label]));
  const departures: Departure[] = [];
  const broken = new Set<string>();
  for (const figure of stated.figures) {
    const { address, label } = figure;
    const found = figureAt(results, address);
    if (isOwn && found && labels.get(address) !== label) {
      const own = labels.get(address) ?? 'nothing';
      departures.push({ what: 'figure', where: address, stated: label, found: own });
    }
    if (found && same(figure, found) && writeFigure(found, figure) === figure.printed) continue;
    broken.add(`${address} ${figure.printed}`);
    departures.push({
      what: 'figure',
      where: address,
      stated: `${figure.printed} = ${inFull(figure)}`,
      found: found ? `${writeFigure(found, figure)} = ${inFull(found)}` : 'no such figure',
    });
  }
  if (isOwn) departures.push(...verifySentences(stated, model));
  departures.push(...verifyWords(stated, study, results));
  const figures = stated.figures.length;
  return { figures, follow: figures - broken.size, departures };
}

function verifySentences(stated: RevisionFigures, model: ReportModel): Departure[] {
  const made = new Map(madeSentences(model).map(({ name, text }) => [name, text]));
  return stated.sentences.flatMap(({ name, text }): Departure[] => {
    const found = made.get(name);
    return found === text
      ? []
      : [{ what: 'sentence', where: name, stated: text, found: found ?? 'no such sentence' }];
  });
}

function verifyWords(stated: RevisionFigures, study: Study, results: ReportedResults): Departure[] {
  const rows = new Map(study.tables.verdicts.map((row) => [row.verdict_id, row]));
  const lost = study.tables.verdicts
    .filter((row) => !stated.words.some((one) => one.verdict_id === row.verdict_id))
    .map((row): Departure => ({
      what: 'words',
      where: row.verdict_id,
      stated: 'not there',
      found: row.text,
    }));
  return [
    ...lost,
    ...stated.words.flatMap(({ verdict_id, text, rests_on }): Departure[] => {
      const row = rows.get(verdict_id);
      const evidence = restsOn(row?.evidence ?? null);
      const found: Departure[] = [];
      if (row?.text !== text) {
        found.push({
          what: 'words',
          where: verdict_id,
          stated: text,
          found: row?.text ?? 'no such sentence',
        });
      } else if (evidence.join(' ') !== rests_on.join(' ')) {
        found.push({
          what: 'words',
          where: verdict_id,
          stated: rests_on.join(' '),
          found: evidence.join(' '),
        });
      }
      for (const address of addressesIn(rests_on.join(' '))) {
        if (figureAt(results, address)) continue;
        found.push({
          what: 'words',
          where: verdict_id,
          stated: `rests on ${address}`,
          found: 'no such figure',
        });
      }
      return found;
    }),
  ];
}

/** A departure as a line: what, where, both values. */
export const describeDeparture = ({ what, where, stated, found }: Departure): string =>
  `${what} ${where}: stated ${stated}; ${what === 'file' ? 'found' : 'from the data'} ${found}`;
