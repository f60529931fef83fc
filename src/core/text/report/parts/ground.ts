import { addressOf } from '../../../answers/figure-address';
import { describePrintsNeeded } from '../../phrasing';
import { counted, groupBy, type Row, type ContenderMark } from '../../../model/study';
import { missingFrom } from '../caveats';
import type { ReportContext } from '../context';
import { COUNT, inUnit, WORD } from '../figure';
import type { ArtefactDrawing, Block, Cell, Text } from '../model';
import { figureCell } from './facts';
import type { ReportedResults } from '../../../answers/results';

/** How it was tested: artefacts, plan, instruments, what was held equal. */
export function methodPart(
  context: ReportContext,
  drawings: ReadonlyMap<string, ArtefactDrawing['drawn']>,
): Block[] {
  const { study, index, marks, results } = context;
  const { artefacts, dimensions, ladders, zones, instruments, prints, materials } = study.tables;
  const items = artefacts.map(({ artefact_id, name, version }): ArtefactDrawing => {
    const of = (rows: readonly { artefact_id: string }[]) =>
      rows.filter((row) => row.artefact_id === artefact_id).length;
    const looked = [
      ...(of(dimensions) > 0 ? [counted(of(dimensions), 'dimension')] : []),
      ...(of(ladders) > 0 ? [counted(of(ladders), 'ladder')] : []),
      ...(of(zones) > 0 ? [counted(of(zones), 'zone')] : []),
    ];
    return {
      name: version === null ? name : `${name}, version ${version}`,
      note: looked.join(', '),
      drawn: drawings.get(artefact_id) ?? null,
    };
  });
  const heads = marks.map(({ contender_id }): Text => [{ contender: contender_id }]);
  const printed = artefacts.map(({ artefact_id, name }) => ({
    head: [name],
    cells: marks.map(({ contender_id }): Cell => {
      const own = index.printsOfContender.get(contender_id) ?? [];
      const count = own.filter((print) => print.artefact_id === artefact_id).length;
      return count === 0 ? { unknown: 'not printed' } : { text: [String(count)] };
    }),
  }));
  const used = instrumentRows(instruments, context);
  const lots = new Set(prints.map((print) => print.material_id));
  const spools = materials
    .filter((row) => lots.has(row.material_id))
    .map((row) =>
      [row.maker, row.type, row.colour, row.lot && `lot ${row.lot}`].filter(Boolean).join(' '),
    );
  const checked = fairnessRows({ artefacts, marks, results, context });
  const sentences = results.fairness
    .filter(({ result }) => result === 'confounded')
    .map((row) => ({
      name: `fairness:${row.contender}:${row.artefact_id}${row.type === null ? '' : `/${row.type}`}`,
      text:
        `${context.nameOf(row.contender)}, ` +
        (context.names.artefacts[row.artefact_id] ?? row.artefact_id) +
        `${row.type === null ? '' : ` in ${row.type}`}: ${row.sentence}`,
    }));
  return [
    { kind: 'drawings', items },
    ...(printed.length > 0
      ? [{ kind: 'table', caption: 'Prints of each artefact', heads, rows: printed } as const]
      : []),
    ...(spools.length > 0
      ? [{ kind: 'text', text: [`Printed of ${spools.join('; ')}.`] } as const]
      : []),
    ...(used.length > 0
      ? [
          {
            kind: 'table',
            caption: 'Instruments, and what they repeat',
            heads: [['resolution'], ['uncertainty (k = 2)'], ['readings'], ['repeats within']],
            rows: used,
          } as const,
        ]
      : []),
    ...(checked.length > 0
      ? [
          {
            kind: 'table',
            caption: 'Fairness: what differs from the reference besides what is compared',
            heads,
            rows: checked,
          } as const,
        ]
      : []),
    ...(sentences.length > 0 ? [{ kind: 'made', title: 'Confounded', sentences } as const] : []),
  ];
}

/** Each instrument with what it resolves and repeats. */
function instrumentRows(instruments: Row<'instruments'>[], context: ReportContext) {
  const used = instruments.map(({ instrument_id: id, name, ...row }) => ({
    head: [name],
    cells: [
      row.resolution_mm === null
        ? ({ unknown: 'not known' } as const)
        : { text: [`${row.resolution_mm} mm`] },
      row.expanded_uncertainty_mm === null
        ? ({ unknown: 'no certificate' } as const)
        : { text: [`${row.expanded_uncertainty_mm} mm`] },
      figureCell(context, `instruments:${id}:readings`, COUNT),
      figureCell(context, `instruments:${id}:repeatability_mm`, inUnit('mm', 3)),
    ],
  }));
  return used;
}

interface FairnessRowsGiven {
  artefacts: Row<'artefacts'>[];
  marks: readonly ContenderMark[];
  results: ReportedResults;
  context: ReportContext;
}

/** Each artefact with what the fairness check found for each contender. */
function fairnessRows({ artefacts, marks, results, context }: FairnessRowsGiven) {
  const checked = artefacts.flatMap(({ artefact_id, name }) => {
    const cells = marks.map(({ contender_id }): Cell => {
      if (contender_id === results.study.reference) return { text: ['reference'] };
      return figureCell(
        context,
        addressOf('fairness', contender_id, artefact_id),
        WORD,
        'not both printed',
      );
    });
    return cells.some((cell) => 'text' in cell && cell.text[0] !== 'reference')
      ? [{ head: [name], cells }]
      : [];
  });
  return checked;
}

/** What is not known: figures without evidence, verdicts that are open or rest on one print. */
export function unknownPart(context: ReportContext): Block[] {
  const { results, nameOf, wordsOf } = context;
  const rows = Object.entries(results.differences).flatMap(([criterion, own]) =>
    own.map((row) => ({ criterion, row })),
  );
  const open = rows.filter(({ row }) => row.verdict === 'unsettled');
  const single = rows.filter(({ row }) => row.verdict === 'one_print');
  const perFigure = (list: typeof rows, say: (own: typeof rows) => string): Text[] =>
    [...groupBy(list, (one) => one.criterion)].map(([criterion, own]) => [
      { strong: wordsOf(criterion).label },
      `: ${say(own)}.`,
    ]);
  const items: Text[] = [
    ...missingFrom(context).map((text): Text => [text]),
    ...perFigure(open, (own) => {
      const who = own.map(({ row }) => {
        const prints = describePrintsNeeded(row);
        return nameOf(row.contender) + (prints === null ? '' : ` (${prints})`);
      });
      return `too close to call: ${who.join(', ')}`;
    }),
    ...perFigure(single, (own) => {
      const who = own.map(({ row }) => nameOf(row.contender));
      return `one print each, no conclusion: ${who.join(', ')}`;
    }),
  ];
  return items.length === 0 ? [] : [{ kind: 'list', title: null, items }];
}
