import { fewestPrintsAsked } from '../phrasing';
import type { PairRow } from '../../statistics/compare';
import type { FigureWords } from '../../answers/figure-names';
import { namedFigure, parseAddress, type NamedFigure } from '../../answers/figure-address';
import { figureAt, type ReportedResults } from '../../answers/results';
import { inUnit, WORD, type FigureFormat } from './figure';
import { whatIs, whoIs } from './labels';
import type { Inline, Text, Tie } from './model';
import type { Printing } from './printing';

const DECIDED: readonly string[] = ['better', 'worse'];

/** How the size of a difference is written. */
export function differenceFormat(criterion: string, words: FigureWords): FigureFormat {
  if (criterion === 'time_index') return inUnit('', 0, 1, 'ratio');
  if (criterion === 'success') return inUnit('points', 0, 100, 'size');
  const unit = criterion === 'surface' ? 'points' : words.unit;
  const digits = criterion === 'accuracy_mm' ? 2 : criterion === 'surface' ? 0 : words.digits;
  return inUnit(unit, digits, words.factor, 'size');
}

/** The row of a difference to the reference. */
export const differenceRow = (
  results: ReportedResults,
  criterion: string,
  contender: string,
): PairRow | null =>
  results.differences[criterion]?.find((row) => row.contender === contender) ?? null;

/** A figure in a few words, for the list below a sentence; null where there is none. */
export function tieOf(printing: Printing, address: string): Tie | null {
  const found = figureAt(printing.results, address);
  const parsed = parseAddress(address);
  if (!found || !parsed) return null;
  const whose = whoIs(printing, parsed.who);
  const named = namedFigure(address);
  if (named?.isDifference) return differenceTie(printing, address, whose, named);
  const { label, format } = whatIs(printing, parsed.section, parsed.key, address);
  const figure = printing.print(
    address,
    found.value === null && found.low === null ? WORD : format,
  );
  return figure && { address, text: [`${whose} ${label} `, { figure }], isDecided: false };
}

function differenceTie(
  printing: Printing,
  address: string,
  whose: string,
  { criterion, who }: NamedFigure,
): Tie | null {
  const words = printing.wordsOf(criterion);
  const verdict = printing.print(address, WORD);
  const size = printing.print(address, differenceFormat(criterion, words));
  if (!verdict || !size) return null;
  const isDecided = DECIDED.includes(verdict.word ?? '');
  if (isDecided && criterion === 'time_index') {
    return { address, text: [`${whose} takes `, { figure: size }, ' time'], isDecided };
  }
  const row = differenceRow(printing.results, criterion, who);
  const needed = row ? fewestPrintsAsked(row) : null;
  const tail: Inline[] = isDecided
    ? [' · ', { figure: size }]
    : needed === null
      ? []
      : [` · ${needed} prints each needed`];
  return { address, text: [`${whose} ${words.label} `, { figure: verdict }, ...tail], isDecided };
}

/** A line as plain text. */
export const textOf = (text: Text, nameOf: (contender: string) => string): string =>
  text
    .map((piece) => {
      if (typeof piece === 'string') return piece;
      if ('figure' in piece) return piece.figure.printed;
      return 'strong' in piece ? piece.strong : nameOf(piece.contender);
    })
    .join('');
