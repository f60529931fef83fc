import { inWords } from '../../../model/study';
import { describeAdvice } from '../../phrasing';
import type { ReportContext } from '../context';
import { COUNT, inUnit, PER_CENT, WORD } from '../figure';
import type { Block, Cell, Text } from '../model';
import { addressOf, addressOfDifference } from '../../../answers/figure-address';
import { differenceFormat } from '../citations';
import { chartBlock, contenderTable, figureCell, withEnds } from './facts';

const MM = inUnit('mm', 3);

/** A contender's difference to the reference, in words with its size. */
function verdictCell(context: ReportContext, criterion: string, contender: string): Cell {
  if (contender === context.reference) return { text: ['reference'] };
  const address = addressOfDifference(criterion, contender);
  const verdict = context.print(address, WORD);
  const size = context.print(address, differenceFormat(criterion, context.wordsOf(criterion)));
  if (!verdict || verdict.word === null) return { unknown: 'nothing in common with the reference' };
  const isDecided = verdict.word === 'better' || verdict.word === 'worse';
  return { text: [{ figure: verdict }, ...(isDecided && size ? [' · ', { figure: size }] : [])] };
}

/** A row of a table of figures: its head, and its cell of each contender. */
type FigureRow = [head: string, cellOf: (contender: string) => Cell];

export function accuracyPart(context: ReportContext): Block[] {
  const { results, nameOf } = context;
  if (!results.accuracy) return [];
  const of = (path: string) => (contender: string) => addressOf('accuracy', contender, path);
  const advice = context.marks.flatMap(({ contender_id: id }) =>
    (results.accuracy?.[id] ? describeAdvice(results.accuracy[id]) : []).map(
      ({ axis, type, finding, remedy }) => ({
        name: `advice:${id}:${axis}${type === null ? '' : `:${type}`}`,
        text: `${nameOf(id)}: ${finding}${remedy === '' ? '' : `; ${remedy}`}.`,
      }),
    ),
  );
  return [
    ...chartBlock(context, 'accuracy_mm'),
    ...contenderTable(context, 'How true the parts are to their nominal sizes', [
      ['readings', (id) => figureCell(context, of('readings')(id), COUNT)],
      ['mean deviation', (id) => withEnds(context, of('mae_mm')(id), MM)],
      ['bias', (id) => figureCell(context, of('bias_mm')(id), inUnit('mm', 3, 1, 'signed'))],
      ['tolerance grade', (id) => figureCell(context, of('it_grade')(id), WORD)],
      ['repeats within', (id) => figureCell(context, of('repeatability_mm')(id), MM)],
      ['against the reference', (id) => verdictCell(context, 'accuracy_mm', id)],
    ]),
    ...(advice.length > 0
      ? [{ kind: 'made', title: 'What is off, and what would mend it', sentences: advice } as const]
      : []),
  ];
}

export function surfacePart(context: ReportContext): Block[] {
  const { results, settings } = context;
  const photoCharts = [...context.charts.keys()].filter((key) => key.startsWith('photo:'));
  return [
    ...chartBlock(context, 'surface'),
    ...(results.surface
      ? contenderTable(context, 'Surface by inspection: 100 is clean, 0 severe', [
          ['parts', (id) => figureCell(context, addressOf('surface', id, 'specimens'), COUNT)],
          [
            'surface index',
            (id) => withEnds(context, addressOf('surface', id, 'index'), inUnit('', 1)),
          ],
          [
            'looked at',
            (id) => figureCell(context, addressOf('surface', id, 'coverage'), PER_CENT),
          ],
          ['against the reference', (id) => verdictCell(context, 'surface', id)],
        ])
      : []),
    ...(settings.with_photos === false
      ? []
      : context.photos.map((row): Block => ({ kind: 'photos', row: row.id }))),
    ...photoCharts.flatMap((key) => chartBlock(context, key)),
  ];
}

export function limitsPart(context: ReportContext): Block[] {
  const { marks } = context;
  const keys = [...context.charts.keys()].filter(
    (key) => key.startsWith('limit:') || key.startsWith('works:'),
  );
  if (keys.length === 0) return [];
  const rows = keys.flatMap((key) => {
    const chart = context.charts.get(key);
    if (!chart) return [];
    const head: Text = [chart.title, ...(chart.unit === '' ? [] : [`, ${chart.unit}`])];
    const cells = chart.rows.map((row): Cell => {
      if (row.figure) return { text: [{ figure: row.figure }] };
      return row.instead === '' ? { unknown: 'not tried' } : { text: [row.instead] };
    });
    return [{ head, cells }];
  });
  const heads = marks.map(({ contender_id }): Text => [{ contender: contender_id }]);
  return [
    {
      kind: 'table',
      caption: 'How far each gets, without effort; share of parts that do their job',
      heads,
      rows,
    },
  ];
}

export function speedPart(context: ReportContext): Block[] {
  const { study, results } = context;
  const claims = results.reach
    ? contenderTable(context, 'Claim, command and reach over the sliced files', [
        ['claimed', (id) => figureCell(context, `reach:${id}:claim.claimed`, inUnit('mm/s', 0))],
        [
          'asked for, at most',
          (id) => figureCell(context, `reach:${id}:commanded_max`, inUnit('mm/s', 0)),
        ],
        [
          'reached, at most',
          (id) => figureCell(context, `reach:${id}:reached_max`, inUnit('mm/s', 0)),
        ],
        [
          'half the time below',
          (id) => figureCell(context, `reach:${id}:reached.p50`, inUnit('mm/s', 0)),
        ],
        [
          'of the time near the claim',
          (id) => figureCell(context, `reach:${id}:claim.share_within_5pct`, inUnit('%', 1, 100)),
        ],
      ])
    : [];
  const times = study.tables.artefacts.map(({ artefact_id, name }): FigureRow => [
    `${name}, min`,
    (id: string) =>
      figureCell(
        context,
        addressOf('speed', id, `by_artefact.${artefact_id}.median_print_s`),
        inUnit('', 1, 1 / 60),
      ),
  ]);
  return [
    ...chartBlock(context, 'time_index'),
    ...contenderTable(context, 'Printing time, heating and pauses apart', [
      ['prints', (id) => figureCell(context, addressOf('speed', id, 'prints'), COUNT)],
      [
        'time × reference',
        (id) => withEnds(context, addressOf('speed', id, 'time_index'), inUnit('', 2)),
      ],
      [
        'actual over estimate',
        (id) => figureCell(context, addressOf('speed', id, 'estimate_ratio'), inUnit('', 2)),
      ],
      ['against the reference', (id) => verdictCell(context, 'time_index', id)],
    ]),
    ...contenderTable(context, 'Median printing time of each artefact', times),
    ...claims,
  ];
}

export function reliabilityPart(context: ReportContext): Block[] {
  const { results, nameOf } = context;
  const of = (set: string, path: string) => (id: string) =>
    addressOf('reliability', id, `${set}.${path}`);
  const modes = context.marks.flatMap(({ contender_id: id }): Text[] => {
    const own = results.modes?.[id] ?? [];
    if (own.length === 0) return [];
    const said = own.map(({ mode, count, operator_count }) => {
      const operator = operator_count > 0 ? `, ${operator_count} by the operator` : '';
      return `${inWords(mode)} ${count} ×${operator}`;
    });
    return [[{ strong: nameOf(id) }, `: ${said.join('; ')}.`]];
  });
  return [
    ...chartBlock(context, 'success'),
    ...contenderTable(context, 'Prints that were a success, and what went wrong', [
      ['good', (id) => figureCell(context, of('all', 'good')(id), COUNT)],
      ['of prints', (id) => figureCell(context, of('all', 'prints')(id), COUNT)],
      [
        'success rate (operator errors excluded)',
        (id) => withEnds(context, of('without_operator', 'success')(id), PER_CENT),
      ],
      [
        'incidents in 100 h',
        (id) => withEnds(context, of('without_operator', 'per_100_h')(id), inUnit('', 1)),
      ],
      [
        'downtime',
        (id) => figureCell(context, of('all', 'downtime_share')(id), inUnit('%', 1, 100)),
      ],
      ['against the reference', (id) => verdictCell(context, 'success', id)],
    ]),
    ...(modes.length > 0
      ? [{ kind: 'list', title: 'Incidents, the most frequent first', items: modes } as const]
      : []),
  ];
}

export function costPart(context: ReportContext): Block[] {
  const { study, names, results } = context;
  const currency = names.currency;
  const perPart = study.tables.artefacts.map(({ artefact_id, name }): FigureRow => [
    `${name}${currency === '' ? '' : `, ${currency}`}`,
    (id: string) =>
      figureCell(context, addressOf('cost', id, `${artefact_id}.per_good_part`), inUnit('', 2)),
  ]);
  const machineOf = (id: string) => context.machineOf(id);
  return [
    ...contenderTable(context, 'Cost of a good part, failures counted', perPart),
    ...contenderTable(context, 'What left the spool, the socket and the machine’s side', [
      ['filament, g', (id) => figureCell(context, `waste:${id}:filament_g`, inUnit('', 0))],
      ['waste', (id) => figureCell(context, `waste:${id}:share`, inUnit('%', 1, 100))],
      ['energy, Wh', (id) => figureCell(context, `waste:${id}:energy_wh`, inUnit('', 0))],
      ...(results.noise
        ? ([
            [
              'noise at 1 m, dB(A)',
              (id: string) =>
                figureCell(
                  context,
                  addressOf('noise', machineOf(id), 'printing.at_1m_db'),
                  inUnit('', 1),
                ),
            ],
          ] as const)
        : []),
    ]),
  ];
}
