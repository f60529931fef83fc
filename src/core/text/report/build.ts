import { whyNoTurningPrice } from '../../answers/scorecard';
import { PART_TITLES, REPORT_PARTS, type ReportPart, type Study } from '../../model/study';
import { cardOf } from '../../answers/scorecard';
import { addressOf, restsOn } from '../../answers/figure-address';
import type { ReportContext } from './context';
import { inUnit, PER_CENT, statedFigure, type PrintedFigure } from './figure';
import type {
  ArtefactDrawing,
  Block,
  Inline,
  MadeSentence,
  ReadersCard,
  ReportData,
  ReportModel,
  ReportSection,
  RevisionChanges,
  RevisionFigures,
} from './model';
import { answerPart, glancePart, lineUpPart } from './parts/answer';
import { effectsPart, handlingPart, panelsPart, scorecardPart } from './parts/deeper';
import {
  accuracyPart,
  costPart,
  limitsPart,
  reliabilityPart,
  speedPart,
  surfacePart,
} from './parts/figures';
import { methodPart, unknownPart } from './parts/ground';

/** What a revision is besides its study and results. */
export interface RevisionFacts {
  number: number;
  /** ISO 8601. */
  frozen_at: string;
  data: ReportData;
  /** By artefact: the lines of its drawing. */
  drawings: ReadonlyMap<string, ArtefactDrawing['drawn']>;
  since: RevisionChanges | null;
}

type MakePart = (context: ReportContext, facts: RevisionFacts) => Block[];

const PARTS: Readonly<Record<ReportPart, MakePart>> = {
  answer: answerPart,
  glance: glancePart,
  'line-up': lineUpPart,
  method: (context, { drawings }) => methodPart(context, drawings),
  accuracy: accuracyPart,
  surface: surfacePart,
  limits: limitsPart,
  speed: speedPart,
  reliability: reliabilityPart,
  cost: costPart,
  'machine-or-profile': effectsPart,
  panels: panelsPart,
  handling: handlingPart,
  scorecard: scorecardPart,
  'not-known': unknownPart,
  data: () => [{ kind: 'data' }],
};

/** Puts a report together. A part without anything to say is not in it. */
export function buildReport(context: ReportContext, facts: RevisionFacts): ReportModel {
  const { settings, reference, study, results } = context;
  const { meta } = study;
  const { alpha, seed } = results.study;
  const sections = (settings.parts ?? REPORT_PARTS).flatMap((part): ReportSection[] => {
    const blocks = PARTS[part](context, facts);
    return blocks.length === 0 ? [] : [{ part, title: PART_TITLES[part], blocks }];
  });
  const shown = new Set(sections.flatMap(({ blocks }) => blocks.flatMap(chartsOf)));
  return {
    format: 1,
    name: meta.name,
    title: meta.title,
    question: meta.question,
    author: settings.author ?? null,
    number: facts.number,
    frozen_at: facts.frozen_at,
    evaluation: { alpha, seed, reference },
    contenders: context.marks.map((mark) => ({
      ...mark,
      isReference: mark.contender_id === reference,
    })),
    sections,
    charts: [...context.charts.values()].filter(({ id }) => shown.has(id)),
    photos: settings.with_photos === false ? [] : context.photos,
    card: sections.some(({ part }) => part === 'scorecard') ? readersCard(context) : null,
    since: facts.since,
    data: facts.data,
  };
}

const chartsOf = (block: Block): readonly string[] =>
  block.kind === 'glance' ? block.charts : block.kind === 'chart' ? [block.chart] : [];

/** The study's scorecard, so that a reader can move its weights. */
function readersCard(context: ReportContext): ReadersCard | null {
  const { results, study, names } = context;
  const filled = results.scorecard;
  if (!filled || !study.meta.scorecard) return null;
  const card = cardOf(study.meta.scorecard);
  const keys = new Set([...card.criteria, ...card.gates].map(({ key }) => key));
  const order = Object.entries(filled.contenders).sort(
    ([, a], [, b]) => Number(b.in) - Number(a.in) || b.score.low - a.score.low,
  );
  return {
    card,
    seed: filled.seed,
    evidence: Object.fromEntries(Object.entries(results.criteria).filter(([key]) => keys.has(key))),
    contenders: study.tables.contenders.map((row) => row.contender_id),
    labels: Object.fromEntries([...keys].map((key) => [key, context.wordsOf(key).label])),
    stated: order.map(([contender, own]) => ({
      contender,
      isIn: own.in,
      score: context.print(addressOf('scorecard', contender, 'score'), inUnit('', 1, 1, 'ends')),
      first:
        own.first_place_share === null
          ? null
          : context.print(addressOf('scorecard', contender, 'first_place_share'), PER_CENT),
      turning:
        own.turning_price === null
          ? null
          : context.print(
              addressOf('scorecard', contender, 'turning_price'),
              inUnit(names.currency, 0),
            ),
      why: whyNoTurningPrice(own),
    })),
  };
}

/** Every figure that a report prints, in the order in which it prints them, each way of writing once. */
export function printedFigures(model: ReportModel): PrintedFigure[] {
  const found = new Map<string, PrintedFigure>();
  const take = (figure: PrintedFigure | null) => {
    if (figure) found.set(`${figure.address} ${figure.printed}`, figure);
  };
  const takeText = (text: readonly Inline[]) => {
    for (const piece of text) {
      if (typeof piece === 'object' && 'figure' in piece) take(piece.figure);
    }
  };
  for (const block of model.sections.flatMap(({ blocks }) => blocks)) {
    if (block.kind === 'answer') {
      for (const { citations } of block.sentences)
        for (const citation of citations) takeText(citation.text);
    } else if (block.kind === 'said') {
      for (const { citations } of block.items)
        for (const citation of citations) takeText(citation.text);
    } else if (block.kind === 'text') takeText(block.text);
    else if (block.kind === 'list') block.items.forEach(takeText);
    else if (block.kind === 'table') {
      for (const row of block.rows) {
        for (const cell of row.cells) if ('text' in cell) takeText(cell.text);
      }
    } else if (block.kind === 'card') {
      for (const row of model.card?.stated ?? []) [row.score, row.first, row.turning].forEach(take);
    }
  }
  for (const chart of model.charts) chart.rows.forEach((row) => take(row.figure));
  for (const row of model.photos) row.frames.forEach((frame) => take(frame.figure));
  return [...found.values()];
}

/** The sentences that the program makes by itself. */
export const madeSentences = (model: ReportModel): MadeSentence[] =>
  model.sections.flatMap(({ blocks }) =>
    blocks.flatMap((block) => (block.kind === 'made' ? block.sentences : [])),
  );

/**
 * Which words and layout reports have. Raised when the text of a page of the same data is another, so
 * that reports made before are still found to follow from their data.
 */
export const EDITION = 3;

/** What travels as `figures.json`: every printed figure with its address, and the words with their citations. */
export const revisionFigures = (model: ReportModel, study: Study): RevisionFigures => ({
  format: 1,
  edition: EDITION,
  title: model.title,
  number: model.number,
  frozen_at: model.frozen_at,
  evaluation: model.evaluation,
  data: model.data,
  figures: printedFigures(model).map(statedFigure),
  sentences: madeSentences(model),
  words: study.tables.verdicts.map(({ verdict_id, kind, text, evidence }) => ({
    verdict_id,
    kind,
    text,
    rests_on: restsOn(evidence),
  })),
});
