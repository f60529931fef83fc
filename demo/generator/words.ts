import { evaluate } from '../../src/core/answers/results';
import { addressesIn } from '../../src/core/answers/figure-address';
import { figureAt } from '../../src/core/answers/results';
import { TABLES, type ReportSettings, type Row, type Study } from '../../src/core/model/study';

/** Who publishes the report, what has to be disclosed, and when it was frozen. */
export const CLIP_BENCH_REPORT: ReportSettings = {
  author: 'Harbour bicycle co-operative',
  disclosure:
    'The co-operative bought three of the machines from its own money; the Fulmar is loaned by ' +
    'its maker and goes back in April. Nobody paid for this work, and no maker saw it before ' +
    'it was published.',
  frozen: ['2026-03-14T20:00:00+01:00', '2026-03-28T17:20:00+01:00'],
};

const sentence = (
  kind: Row<'verdicts'>['kind'],
  contender_id: string | null,
  text: string,
  ...evidence: readonly string[]
) => ({ kind, contender_id, text, evidence: evidence.join(' ') });

const WORDS = [
  sentence(
    'answer',
    null,
    'Take the Gannet where many parts must be ready by evening; take the Auklet with our own ' +
      'profile where the price counts. Both print truer than the Auklet as it comes.',
    'pairs:A-tuned:accuracy_mm',
    'pairs:B-stock:accuracy_mm',
    'pairs:B-stock:ln_print_s',
  ),
  sentence(
    'for-whom',
    'B-tuned',
    'For a bench that runs all day and has a corner where a loud machine disturbs nobody.',
    'scorecard:B-tuned:first_place_share',
    'noise:gannet:printing.at_1m_db',
  ),
  sentence(
    'for-whom',
    'A-tuned',
    'For who can wait longer and keeps 450 euros.',
    'speed:A-tuned:time_index',
  ),
  sentence(
    'plus',
    'B-stock',
    'Less than half the time of the Auklet, as it comes out of the box.',
    'pairs:B-stock:ln_print_s',
  ),
  sentence(
    'plus',
    'A-tuned',
    'Our profile mends what the maker’s leaves: walls and holes come out true.',
    'pairs:A-tuned:accuracy_mm',
  ),
  sentence(
    'minus',
    'D-stock',
    'It stood still in the middle of a print and asked for hands more than any other machine.',
    'reliability:D-stock:all.downtime_share',
    'reliability:D-stock:all.hands_min_per_100_h',
  ),
  sentence(
    'advice',
    'C-stock',
    'Its parts come out large in X and Y: enter the scale that the fit says, and it is as true as the others.',
    'accuracy:C-stock:fit.x.advice.scale_to_enter',
  ),
  sentence(
    'caveat',
    'A-tuned',
    'On the echo wall the tuned Auklet was sliced with the other program, which turned the ' +
      'seam and added a top layer: what is seen there is confounded.',
    'fairness:A-tuned:echo-wall',
  ),
];

/** A study with the words of its report, each with the figures that it rests on. */
export function withWords(study: Study): Study {
  const orders = new Map<string, number>();
  const verdicts = WORDS.map((row, at): Row<'verdicts'> => {
    const order = (orders.get(row.kind) ?? 0) + 1;
    orders.set(row.kind, order);
    return TABLES.verdicts.row.parse({ verdict_id: `s${at + 1}`, order, ...row });
  });
  const results = evaluate(study);
  const verdict_figures = verdicts.flatMap(({ verdict_id, evidence }) =>
    addressesIn(evidence).flatMap((address) => {
      const found = figureAt(results, address);
      if (!found && !address.startsWith('fairness:')) throw new Error(`no figure at ${address}`);
      // What sliced files state is not known here: fairness is judged where they are read.
      return found && !address.startsWith('fairness:') ? [{ verdict_id, address, ...found }] : [];
    }),
  );
  const present = new Set([...study.present, 'verdicts', 'verdict_figures'] as const);
  return {
    meta: { ...study.meta, report: CLIP_BENCH_REPORT },
    tables: { ...study.tables, verdicts, verdict_figures },
    present,
  };
}
