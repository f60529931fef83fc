import type { Block, Cell, Chart, ReportModel, ReportSentence, Text } from '../core/text/report';
import { VERDICT_SIGNS } from '../core/text/phrasing';
import { dayOf, nameIn, plainText, titleOf } from './text';

/** Text in which nothing is taken for markup: no list, no entity, no link that readers make of addresses. */
const safe = (text: string): string =>
  text
    .replace(/\s+/g, ' ')
    .trim()
    .replace(/[\\`*_[\]#!|>~]/g, (sign) => `\\${sign}`)
    .replace(/^([-+=])/, '\\$1')
    .replace(/^(\d+)([.)])/, '$1\\$2')
    .replaceAll('&', '&amp;')
    .replaceAll('<', '&lt;')
    .replaceAll('://', ':&#47;&#47;')
    .replaceAll('@', '&#64;')
    .replace(/\bwww\./gi, (found) => `${found.slice(0, -1)}&#46;`);

/** A report as Markdown, with its pictures beside it. */
export function markdownOf(model: ReportModel): string {
  const say = (text: Text) => safe(plainText(model, text));
  const out: string[] = [
    `# ${safe(model.title)}`,
    ...(model.question === null ? [] : [safe(model.question)]),
    `${model.author === null ? '' : `${safe(model.author)} · `}report ${model.number} of ` +
      `${dayOf(model.frozen_at)} · SHA-256 of the data: \`${model.data.sha256}\``,
  ];
  for (const { title, blocks } of model.sections) {
    out.push(`## ${safe(title)}`, ...blocks.flatMap((block) => blockOf(model, block, say)));
  }
  if (model.since) {
    const { since } = model;
    out.push(
      `## What changed since report ${since.from}`,
      ...since.figures.map(
        ({ label, then, now }) => `- ${safe(label)}: ${safe(then)} → ${safe(now)}`,
      ),
      ...since.words.map(({ then, now }) => `- ${safe(then ?? 'new')} → ${safe(now ?? 'gone')}`),
      ...since.data.map(({ table, then, now }) => `- ${safe(titleOf(table))}: ${then} → ${now}`),
    );
  }
  return `${joined(out)}\n`;
}

/** Paragraphs apart, lines of one list or table together. */
function joined(parts: readonly string[]): string {
  const isLine = (text: string) => text.startsWith('- ') || text.startsWith('|');
  return parts.reduce((text, part, at) => {
    const before = parts[at - 1];
    if (before === undefined) return part;
    const isSame = isLine(before) && isLine(part) && before[0] === part[0];
    return `${text}${isSame ? '\n' : '\n\n'}${part}`;
  }, '');
}

function blockOf(model: ReportModel, block: Block, say: (text: Text) => string): string[] {
  const sentence = (own: ReportSentence) => {
    const who = own.contender === null ? '' : `**${safe(nameIn(model, own.contender))}**: `;
    const citations = own.citations.map((citation) => say(citation.text)).join('; ');
    return `${who}${safe(own.text)}${citations === '' ? '' : ` (${citations})`}`;
  };
  switch (block.kind) {
    case 'answer':
      return block.sentences.map((own) => `> ${sentence(own)}`);
    case 'said':
      return [`### ${safe(block.title)}`, ...block.items.map((own) => `- ${sentence(own)}`)];
    case 'text':
      return [say(block.text)];
    case 'made':
      return [
        ...(block.title === null ? [] : [`### ${safe(block.title)}`]),
        ...block.sentences.map(({ text }) => `- ${safe(text)}`),
      ];
    case 'list':
      return [
        ...(block.title === null ? [] : [`### ${safe(block.title)}`]),
        ...block.items.map((text) => `- ${say(text)}`),
      ];
    case 'glance':
      return glance(model, block.charts);
    case 'chart': {
      const chart = model.charts.find(({ id }) => id === block.chart);
      return chart ? [`![${safe(chart.sentence)}](figures/${chart.id}.svg)`] : [];
    }
    case 'photos': {
      const row = model.photos.find(({ id }) => id === block.row);
      if (!row) return [];
      return [
        `The same place on every contender: ${safe(row.title)}, ${safe(row.where)}`,
        ...table(
          row.frames.map((frame) => safe(nameIn(model, frame.contender))),
          [
            row.frames.map(
              (frame) =>
                `![${safe(`${row.title}, ${nameIn(model, frame.contender)}`)}](${frame.file})`,
            ),
            row.frames.map((frame) => safe(frame.figure?.printed ?? '')),
          ],
        ),
      ];
    }
    case 'table':
      return [
        `**${safe(block.caption)}**`,
        ...table(
          ['', ...block.heads.map(say)],
          block.rows.map((row) => [say(row.head), ...row.cells.map((cell) => cellOf(cell, say))]),
        ),
      ];
    case 'drawings':
      return block.items.map(({ name, note }) => `- **${safe(name)}**: ${safe(note)}`);
    case 'card':
      return card(model);
    case 'data':
      return [
        `\`data.zip\` holds the study as it was frozen (SHA-256 \`${model.data.sha256}\`), ` +
          '`figures.json` every printed figure with its address. `vergleich verify` computes all ' +
          'of them from the data.',
      ];
  }
}

const cellOf = (cell: Cell, say: (text: Text) => string): string =>
  'text' in cell ? say(cell.text) : `*${safe(cell.unknown)}*`;

const table = (head: readonly string[], rows: readonly (readonly string[])[]): string[] => [
  `| ${head.join(' | ')} |`,
  `|${head.map(() => ' --- ').join('|')}|`,
  ...rows.map((row) => `| ${row.join(' | ')} |`),
];

function glance(model: ReportModel, ids: readonly string[]): string[] {
  const charts = ids.flatMap((id) => model.charts.find((chart) => chart.id === id) ?? []);
  const cell = (chart: Chart, contender: string): string => {
    const row = chart.rows.find((one) => one.contender === contender);
    if (!row?.figure) return `*${safe(row?.instead || 'not known')}*`;
    const sign = row.verdict === null ? '' : `${VERDICT_SIGNS[row.verdict][0]} `;
    return `${sign}${safe(row.figure.printed)}`;
  };
  return table(
    ['', ...model.contenders.map(({ contender_id }) => safe(nameIn(model, contender_id)))],
    charts.map((chart) => [
      safe(`${chart.title}${chart.unit === '' ? '' : `, ${chart.unit}`}`),
      ...model.contenders.map(({ contender_id }) => cell(chart, contender_id)),
    ]),
  );
}

function card({ card: own, ...model }: ReportModel): string[] {
  if (!own) return [];
  return table(
    ['contender', 'score of 100', 'comes first in', 'stays first up to'],
    own.stated.map((row) => [
      safe(nameIn(model, row.contender)),
      safe(row.score?.printed ?? ''),
      safe(row.first?.printed ?? 'out'),
      safe(row.turning?.printed ?? row.why),
    ]),
  );
}
