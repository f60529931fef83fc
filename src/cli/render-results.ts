import type { Results } from '../core/answers/results';
import type { Study } from '../core/model/study';
import type { PairRow } from '../core/statistics/compare';
import { describeClaim } from '../core/toolpath';
import {
  describeEffects,
  describeScorecard,
  formatShare,
  describeSweep,
  describeVerdict,
} from '../core/text/phrasing';
import { figureNamesOf, figureWords } from '../core/answers/figure-names';
import { ends, fixed, table } from './text-table';

/** The results as text for a terminal: who is more accurate, faster, more reliable, by how much. */
export function renderResults(study: Study, results: Results): string {
  const label = new Map(study.tables.contenders.map((row) => [row.contender_id, row.label]));
  const nameOf = (id: string) => label.get(id) ?? id;
  const lines = [
    results.study.title,
    ...(study.meta.question ? [study.meta.question] : []),
    `Intervals: ${100 * (1 - results.study.alpha)} %. Reference: ${nameOf(results.study.reference ?? '')}.`,
  ];
  if (results.accuracy) {
    lines.push('', 'Accuracy: mean absolute deviation, mm');
    lines.push(
      ...table(
        [
          'contender',
          'MAE',
          'interval',
          'bias',
          'class',
          'prints',
          'readings',
          'against reference',
        ],
        Object.entries(results.accuracy).map(([id, own]) => [
          nameOf(id),
          fixed(own.mae_mm.estimate, 3),
          ends(own.mae_mm, 3),
          fixed(own.bias_mm.estimate, 3, true),
          own.it_grade ?? 'not known',
          String(own.prints),
          String(own.readings),
          against(results.pairs.accuracy_mm, id, results, 'mm'),
        ]),
      ),
    );
  }
  lines.push('', 'Speed: print time relative to the reference');
  lines.push(
    ...table(
      ['contender', 'time index', 'interval', 'actual/estimate', 'prints', 'against reference'],
      Object.entries(results.speed).map(([id, own]) => [
        nameOf(id),
        fixed(own.time_index.estimate, 3),
        ends(own.time_index, 3),
        fixed(own.estimate_ratio.estimate, 3),
        String(own.prints),
        against(results.pairs.ln_print_s, id, results, 'time'),
      ]),
    ),
  );
  lines.push('', 'Reliability: prints that were a success');
  lines.push(
    ...table(
      ['contender', 'good', 'share', 'interval', "without the operator's mistakes"],
      study.tables.contenders.map(({ contender_id }) => {
        const own = results.reliability[contender_id];
        return [
          nameOf(contender_id),
          `${own?.all.good}/${own?.all.prints}`,
          fixed(own?.all.success.estimate ?? null, 3),
          own ? ends(own.all.success, 3) : 'not known',
          `${own?.without_operator.good}/${own?.without_operator.prints}`,
        ];
      }),
    ),
  );
  const claims = Object.entries(results.reach ?? {}).flatMap(([id, { claim }]) =>
    claim ? [`  ${nameOf(id)}: ${describeClaim(claim)}`] : [],
  );
  if (claims.length > 0) lines.push('', 'Claim, command and reach', ...claims);
  lines.push(...answerLines(study, results, nameOf));
  return `${lines.join('\n')}\n`;
}

/** What the study comes to, in the program's own sentences. */
function answerLines(
  study: Study,
  results: Results,
  nameOf: (contender: string) => string,
): string[] {
  const { effects, sweep, scorecard, study: about } = results;
  const names = figureNamesOf(study);
  const labelOf = (key: string) => figureWords(key, names).label;
  const indented = (sentences: readonly string[]) => sentences.map((one) => `  ${one}`);
  const responses = (['ln_mae', 'surface_index', 'ln_print_s'] as const).flatMap((response) => {
    const own = effects[response];
    return own && (own.terms !== null || Object.keys(own.gains ?? {}).length > 0)
      ? describeEffects(response, own, nameOf, about.alpha)
      : [];
  });
  return [
    ...(responses.length > 0 ? ['', 'Machine or profile', ...indented(responses)] : []),
    ...(sweep ? ['', 'Sweep', ...indented(describeSweep(sweep, labelOf))] : []),
    ...(scorecard
      ? [
          '',
          'Scorecard',
          ...indented(
            describeScorecard(
              scorecard,
              scorecard.name ?? 'this study',
              nameOf,
              labelOf,
              names.currency,
            ),
          ),
          ...table(
            ['contender', 'score', 'comes first'],
            Object.entries(scorecard.contenders).map(([id, own]) => [
              nameOf(id),
              own.score.high - own.score.low > 0.05
                ? `${own.score.low.toFixed(1)} … ${own.score.high.toFixed(1)}`
                : own.score.low.toFixed(1),
              own.first_place_share === null ? 'excluded' : formatShare(own.first_place_share),
            ]),
          ),
        ]
      : []),
  ];
}

function against(
  rows: readonly PairRow[] | null,
  contender: string,
  results: Results,
  unit: 'mm' | 'time',
): string {
  if (contender === results.study.reference) return 'reference';
  const row = rows?.find((candidate) => candidate.contender === contender);
  return row ? describeVerdict(row, unit) : 'nothing in common';
}
