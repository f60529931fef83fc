import { addressOf } from '../../../answers/figure-address';
import { inWords } from '../../../model/study';
import { paceOf, panelHabits } from '../../../measures/panels';
import {
  describeEffects,
  describeHabits,
  describePanel,
  describeScorecard,
  describeSweep,
} from '../../phrasing';
import type { ReportContext } from '../context';
import { COUNT, inUnit, PER_CENT } from '../figure';
import type { Block, Cell, MadeSentence, Text } from '../model';
import { contenderTable, figureCell, withEnds } from './facts';

const RESPONSES = ['ln_mae', 'surface_index', 'ln_print_s'] as const;

/** Machine or profile, and how far a setting can be taken. */
export function effectsPart(context: ReportContext): Block[] {
  const { results, nameOf } = context;
  const sentences = RESPONSES.flatMap((response): MadeSentence[] => {
    const own = results.effects[response];
    if (!own || (own.terms === null && Object.keys(own.gains ?? {}).length === 0)) return [];
    return describeEffects(response, own, nameOf, results.study.alpha).map((text, at) => ({
      name: `effects:${response}:${at + 1}`,
      text,
    }));
  });
  // What holds for every response is said once.
  const once = [
    ...new Map([...sentences].reverse().map((one) => [one.text, one])).values(),
  ].reverse();
  const { sweep } = results;
  const labelOf = (key: string) => context.wordsOf(key).label;
  const swept = sweep
    ? describeSweep(sweep, labelOf).map((text, at) => ({
        name: `sweep:${at + 1}`,
        text,
      }))
    : [];
  return [
    ...(once.length > 0 ? [{ kind: 'made', title: null, sentences: once } as const] : []),
    ...(swept.length > 0
      ? [{ kind: 'made', title: 'How far the setting can be taken', sentences: swept } as const]
      : []),
  ];
}

const PANEL_NOTES = {
  looked: 'Somebody looked before the end',
  'ended-early': 'It was ended early',
  'taken-out': 'A specimen was removed',
  'pace-checked': 'The organiser looked at answers that came fast',
} as const;

/** What people said who saw parts without knowing whose they are, and how they were asked. */
export function panelsPart(context: ReportContext): Block[] {
  const { results, study, reference } = context;
  const { alpha } = results.study;
  return study.tables.panels.flatMap(({ panel_id: id, kind, aspect }): Block[] => {
    const own = results.panels?.[id];
    if (!own) return [];
    const ballots = study.tables.ballots.filter((row) => row.panel_id === id);
    const { isWithheld } = paceOf(study.tables, id);
    const said = [
      ...describePanel(own, reference, (who) => context.nameOf(who), alpha, isWithheld),
      ...describeHabits(panelHabits(kind, ballots, alpha), alpha),
      ...heldAs(context, id),
    ];
    const sentences = said.map((text, at) => ({ name: `panels:${id}:said:${at + 1}`, text }));
    const made: Block = { kind: 'made', title: aspect, sentences };
    const caption = `${aspect} · ${kind} · ${own.ballots} ballots of ${own.judges} people`;
    if (own.kind === 'paired') {
      // Where judges gave several ballots, the table speaks by judge, as the sentences do.
      const isByJudge = Object.values(own.abilities).some(
        (one) => one.log_ability_by_judge !== null,
      );
      const ability = isByJudge ? 'log_ability_by_judge' : 'log_ability';
      const table = contenderTable(context, caption, [
        [
          'preferred',
          (who) => figureCell(context, addressOf('panels', id, `abilities.${who}.wins`), COUNT),
        ],
        [
          'not preferred',
          (who) => figureCell(context, addressOf('panels', id, `abilities.${who}.losses`), COUNT),
        ],
        [
          'ability, log',
          (who) =>
            withEnds(
              context,
              addressOf('panels', id, `abilities.${who}.${ability}`),
              inUnit('', 2),
            ),
        ],
      ]);
      return [made, ...table];
    }
    const cells: Cell[] = [
      figureCell(context, addressOf('panels', id, 'correct'), COUNT),
      withEnds(context, addressOf('panels', id, 'correct_share'), PER_CENT),
      figureCell(context, addressOf('panels', id, 'p'), inUnit('', 3)),
    ];
    const heads: Text[] = [['right'], ['share'], ['p against guessing']];
    return [made, { kind: 'table', caption, heads, rows: [{ head: [aspect], cells }] }];
  });
}

/** How a panel was held, and what was done with it that its reader should know. */
function heldAs({ study }: ReportContext, id: string): string[] {
  const setup = study.tables.panel_setups.find((row) => row.panel_id === id);
  const said: string[] = [];
  if (setup) {
    const shown =
      setup.shown_as === 'parts'
        ? 'Judges had the parts themselves before them, under codes'
        : `Judges saw photos of the same place under codes: ${inWords(setup.view ?? 'detail')}, ` +
          `${inWords(setup.light ?? 'unknown')} ` +
          `light${setup.levels === 'matched' ? ', grey and equally bright' : ''}`;
    const ended = {
      number: 'when as many as were wanted had judged',
      date: 'at its date',
      hand: 'by hand, before its rule',
    };
    const end = setup.closed_by === null ? '' : `; the panel ended ${ended[setup.closed_by]}`;
    said.push(`${shown}${end}.`);
  }
  for (const { panel_id, what, note } of study.tables.panel_notes) {
    if (panel_id === id) said.push(`${PANEL_NOTES[what]}: ${note}`);
  }
  return said;
}

/** What is told about a machine beside what was measured on parts. */
export function handlingPart(context: ReportContext): Block[] {
  const { results, study, machineName } = context;
  const machines = study.tables.machines;
  const setup = machines.flatMap(({ machine_id: id, name }) =>
    results.setup?.[id] && results.setup[id].steps > 0
      ? [
          {
            head: [name],
            cells: [
              figureCell(context, addressOf('setup', id, 'minutes'), inUnit('min', 0)),
              figureCell(context, addressOf('setup', id, 'steps'), COUNT),
              figureCell(context, addressOf('setup', id, 'snags'), COUNT),
            ],
          },
        ]
      : [],
  );
  const trials = Object.entries(results.trials ?? {}).flatMap(([id, own]) =>
    Object.keys(own).map((feature) => ({
      head: [`${machineName(id)}: ${inWords(feature)}`],
      cells: [
        figureCell(context, `trials:${id}:${feature}.as_promised`, COUNT),
        figureCell(context, `trials:${id}:${feature}.trials`, COUNT),
        withEnds(context, `trials:${id}:${feature}.share`, PER_CENT),
      ],
    })),
  );
  const claims = study.tables.claims.map((claim) => ({
    head: [`${machineName(claim.machine_id)}: ${claim.statement}`],
    cells: [
      claim.finding === null
        ? ({ unknown: 'not inspected yet' } as const)
        : { text: [{ strong: inWords(claim.finding) }] },
      claim.evidence === null
        ? ({ unknown: 'no evidence is named' } as const)
        : { text: [claim.evidence] },
    ],
  }));
  const remarks = study.tables.marks.map((row): Text => [
    { strong: machineName(row.machine_id) },
    ` ${SIGNS[row.sign] ?? ''} ${inWords(row.aspect)}: ${row.text}`,
  ]);
  const borrowed = study.tables.borrowed.map((row): Text => [
    { strong: machineName(row.machine_id) },
    `: “${row.statement}” (${row.source}); not measured here.`,
  ]);
  return [
    ...(setup.length > 0
      ? [
          {
            kind: 'table',
            caption: 'Set-up until the first print',
            heads: [['minutes'], ['steps'], ['snags']],
            rows: setup,
          } as const,
        ]
      : []),
    ...(trials.length > 0
      ? [
          {
            kind: 'table',
            caption: 'Features and faults that were tried',
            heads: [['as promised'], ['of'], ['share']],
            rows: trials,
          } as const,
        ]
      : []),
    ...(claims.length > 0
      ? [
          {
            kind: 'table',
            caption: 'What was claimed, and what was found',
            heads: [['found'], ['evidence']],
            rows: claims,
          } as const,
        ]
      : []),
    ...(remarks.length > 0 ? [{ kind: 'list', title: 'Remarks', items: remarks } as const] : []),
    ...(borrowed.length > 0
      ? [
          {
            kind: 'list',
            title: 'Reported elsewhere (not used in calculations)',
            items: borrowed,
          } as const,
        ]
      : []),
  ];
}

const SIGNS: Readonly<Record<string, string>> = { plus: '＋', minus: '−', neutral: '·' };

/** The scorecard as it stands: who comes first, how surely, up to which price. */
export function scorecardPart(context: ReportContext): Block[] {
  const { results, names, nameOf } = context;
  const card = results.scorecard;
  if (!card) return [];
  const labelOf = (key: string) => context.wordsOf(key).label;
  const said = describeScorecard(card, card.name ?? 'this study', nameOf, labelOf, names.currency);
  const doubts = Object.entries(card.doubt ?? {})
    .filter(([, share]) => share > 0)
    .sort(([, a], [, b]) => b - a)
    .map(([key]) => ({
      head: [key === 'weights' ? 'the weights, an opinion' : labelOf(key)],
      cells: [figureCell(context, addressOf('scorecard', 'doubt', key), PER_CENT)],
    }));
  return [
    {
      kind: 'made',
      title: null,
      sentences: said.map((text, at) => ({ name: `scorecard:${at + 1}`, text })),
    },
    { kind: 'card' },
    ...(doubts.length > 0
      ? [
          {
            kind: 'table',
            caption:
              'What the result depends on: how often another contender comes first while only this varies',
            heads: [['of simulations']],
            rows: doubts,
          } as const,
        ]
      : []),
  ];
}
