import { capital, describeAdvice, describeScorecard, describeSweep } from '../phrasing';
import type { Row } from '../../model/study';
import type { ReportContext } from './context';
import { differenceFormat, differenceRow } from './citations';
import { inUnit, writeFigure } from './figure';
import {
  addressOf,
  addressOfCriterion,
  addressOfDifference,
  restsOn,
} from '../../answers/figure-address';
import { figureAt } from '../../answers/results';

type Kind = Row<'verdicts'>['kind'];

/** A sentence that the results suggest; a person accepts it, edits it or throws it away. */
export interface Proposal {
  /** The same for the same sentence about the same figures. */
  key: string;
  kind: Kind;
  contender: string | null;
  text: string;
  /** Addresses of the figures that it rests on. */
  rests_on: string[];
}

/**
 * The sentences that the results suggest: the answer of the card, what speaks for and against each
 * contender in verdicts, what to set, how far a setting holds. Those that were thrown away, or that
 * the study says already, are not among them.
 */
export function proposalsOf(context: ReportContext): Proposal[] {
  const said = new Set(
    context.study.tables.verdicts.map((row) =>
      keyOf(row.kind, row.contender_id, restsOn(row.evidence)),
    ),
  );
  const thrown = new Set(context.settings.thrown_away ?? []);
  return [...answers(context), ...verdicts(context), ...advice(context)]
    .map((one) => ({ ...one, key: keyOf(one.kind, one.contender, one.rests_on) }))
    .filter(({ key }) => !said.has(key) && !thrown.has(key));
}

type Suggested = Omit<Proposal, 'key'>;

const keyOf = (kind: string, contender: string | null, addresses: readonly string[]): string =>
  `${kind} ${contender ?? '-'} ${[...addresses].sort().join(' ')}`.slice(0, 400);

function answers(context: ReportContext): Suggested[] {
  const { results, nameOf, names, reference } = context;
  const card = results.scorecard;
  const found: Suggested[] = [];
  if (card?.winner) {
    const labelOf = (key: string) => context.wordsOf(key).label;
    const use = card.name ?? 'this study';
    const [first = ''] = describeScorecard(card, use, nameOf, labelOf, names.currency);
    const rests_on = [addressOf('scorecard', card.winner, 'first_place_share')];
    found.push({ kind: 'answer', contender: card.winner, text: first, rests_on });
    const price = card.contenders[card.winner]?.turning_price;
    if (price != null) {
      found.push({
        kind: 'for-whom',
        contender: card.winner,
        text: `For ${use}, as long as it costs no more than ${price.toFixed(0)} ${names.currency}.`,
        rests_on: [addressOf('scorecard', card.winner, 'turning_price')],
      });
    }
  }
  const { sweep } = results;
  if (sweep?.holds_to) {
    const labelOf = (key: string) => context.wordsOf(key).label;
    const text = describeSweep(sweep, labelOf).join(' ');
    const rests_on = Object.keys(sweep.figures)
      .filter((key) => sweep.figures[key]?.delta != null)
      .map((key) => addressOfCriterion(key, sweep.holds_to ?? '', ''));
    found.push({ kind: 'answer', contender: sweep.holds_to, text, rests_on });
  }
  if (!card && reference !== null) {
    const alike = context.marks.filter(({ contender_id }) =>
      ALIKE.includes(differenceRow(results, 'accuracy_mm', contender_id)?.verdict ?? ''),
    );
    for (const { contender_id } of alike) {
      found.push({
        kind: 'answer',
        contender: contender_id,
        text:
          `The sizes of the parts of ${nameOf(contender_id)} and ${nameOf(reference)} ` +
          'do not differ by what matters.',
        rests_on: [addressOfDifference('accuracy_mm', contender_id)],
      });
    }
  }
  return found;
}

const ALIKE: readonly string[] = ['indistinguishable', 'trivial'];

/** What is shown of each contender against the reference; figures on photos after the others. */
function verdicts(context: ReportContext): Suggested[] {
  const { results, nameOf, reference, marks } = context;
  if (reference === null) return [];
  const keys = Object.keys(results.differences);
  const ordered = [
    ...keys.filter((key) => !key.startsWith('photo:')),
    ...keys.filter((key) => key.startsWith('photo:')),
  ];
  return marks.flatMap(({ contender_id: contender }) =>
    ordered.flatMap((criterion): Suggested[] => {
      const row = differenceRow(results, criterion, contender);
      if (row?.verdict !== 'better' && row?.verdict !== 'worse') return [];
      const address = addressOfDifference(criterion, contender);
      const found = figureAt(results, address);
      if (!found) return [];
      const words = context.wordsOf(criterion);
      const size = writeFigure(found, differenceFormat(criterion, words));
      return [
        {
          kind: row.verdict === 'better' ? 'plus' : 'minus',
          contender,
          text: describeVerdict(criterion, words.label, row.verdict, size, nameOf(reference)),
          rests_on: [address],
        },
      ];
    }),
  );
}

function describeVerdict(
  criterion: string,
  label: string,
  verdict: 'better' | 'worse',
  size: string,
  reference: string,
): string {
  if (criterion === 'time_index') return `Takes ${size} time than ${reference}.`;
  return `${capital(label)} ${verdict} than ${reference}’s by ${size}.`;
}

/** What the fits of the axes advise. */
function advice({ results, marks, nameOf }: ReportContext): Suggested[] {
  return marks.flatMap(({ contender_id: contender }) => {
    const own = results.accuracy?.[contender];
    if (!own) return [];
    return describeAdvice(own)
      .filter(({ remedy, type }) => remedy !== '' && type === null)
      .map(({ axis, finding, remedy, before_mm, after_mm }): Suggested => {
        const path = addressOf('accuracy', contender, `fit.${axis}.advice`);
        const from = writeFigure(plain(before_mm), inUnit('mm', 3));
        const to = writeFigure(plain(after_mm), inUnit('mm', 3));
        return {
          kind: 'advice',
          contender,
          text:
            `${nameOf(contender)}, ${finding}: enter ${remedy}; its mean deviation there would go from ` +
            `${from} to ${to}.`,
          rests_on: [`${path}.mae_before_mm`, `${path}.mae_after_mm`],
        };
      });
  });
}

const plain = (value: number) => ({ value, low: null, high: null, word: null });
