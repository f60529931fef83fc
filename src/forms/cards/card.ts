import type { Verdict } from '../../core/statistics/compare';
import type { Chart, ChartRow, PhotoRow, ReportModel } from '../../core/text/report';
import { DARK, LIGHT, type Colours } from '../colours';
import { capital, VERDICT_SIGNS } from '../../core/text/phrasing';
import { dayOf, nameIn, plainText } from '../text';
import { fitted, widthOf } from './letters';
import { Pen } from './pen';

/** What a card can show: an answer, a figure of everyone, or photos of one place. */
export type CardSubject =
  | { kind: 'answer'; verdict_id: string }
  | { kind: 'chart'; id: string }
  | { kind: 'photos'; id: string };

export const CARD_SIZES = { wide: [1920, 1080], square: [1080, 1080] } as const;
export type CardSize = keyof typeof CARD_SIZES;
export type CardTheme = 'light' | 'dark' | 'clear';

export interface CardLook {
  size: CardSize;
  theme: CardTheme;
}

/** The smallest type on a card: legible on a phone. */
export const SMALLEST = 28;
const MARGIN = 72;

/** A photo of a report by its name there. */
export type PhotoBytes = (file: string) => Uint8Array | null;

/** All that a report has for cards, what matters most first, with what it is called. */
export function cardSubjects(model: ReportModel): { subject: CardSubject; title: string }[] {
  const answers = model.sections
    .flatMap(({ blocks }) => blocks)
    .flatMap((block) =>
      block.kind === 'answer' ? block.sentences : block.kind === 'said' ? block.items : [],
    )
    .map(({ verdict_id, text }) => ({
      subject: { kind: 'answer', verdict_id } as const,
      title: text,
    }));
  const charts = model.charts.map(({ id, title }) => ({
    subject: { kind: 'chart', id } as const,
    title,
  }));
  const photos = model.photos.map(({ id, title, where }) => ({
    subject: { kind: 'photos', id } as const,
    title: `${title} · ${where}`,
  }));
  return [...answers, ...charts, ...photos];
}

/** Draws a card as SVG; null where the report has no such subject. */
export function drawCard(
  model: ReportModel,
  subject: CardSubject,
  { size, theme }: CardLook,
  photoOf: PhotoBytes,
): string | null {
  const [width, height] = CARD_SIZES[size];
  const colours = theme === 'dark' ? DARK : LIGHT;
  const pen = new Pen(width, height, colours);
  const said = fill(pen, model, subject, photoOf);
  if (said === null) return null;
  foot(pen, model);
  return pen.svg(said.title, said.description, theme === 'clear' ? null : colours.sheet);
}

interface Said {
  title: string;
  description: string;
}

function fill(
  pen: Pen,
  model: ReportModel,
  subject: CardSubject,
  photoOf: PhotoBytes,
): Said | null {
  if (subject.kind === 'chart') {
    const chart = model.charts.find(({ id }) => id === subject.id);
    return chart ? chartCard(pen, model, chart) : null;
  }
  if (subject.kind === 'photos') {
    const row = model.photos.find(({ id }) => id === subject.id);
    return row ? photoCard(pen, model, row, photoOf) : null;
  }
  return answerCard(pen, model, subject.verdict_id);
}

/** Whose it is, and by what it can be checked. */
function foot(pen: Pen, model: ReportModel): void {
  const { width, height, colours } = pen;
  const y = height - MARGIN + 20;
  const who = model.author === null ? model.title : `${model.author} · ${model.title}`;
  const said = `report ${model.number}, ${dayOf(model.frozen_at)}`;
  const room = width - 2 * MARGIN - widthOf(said, SMALLEST, 'regular') - 40;
  pen.line(MARGIN, y - 46, width - MARGIN, y - 46, colours.line, 2);
  pen.text(fitted(who, room, SMALLEST, 'regular'), MARGIN, y, {
    size: SMALLEST,
    colour: colours.second,
  });
  pen.text(said, width - MARGIN, y, { size: SMALLEST, colour: colours.second, anchor: 'end' });
}

function badge(pen: Pen, model: ReportModel, id: string, x: number, y: number, size: number): void {
  const mark = model.contenders.find((one) => one.contender_id === id);
  if (!mark) return;
  const hue = pen.colours.hues[mark.hue] ?? pen.colours.ink;
  const inside = mark.isTuned ? hue : pen.colours.sheet;
  pen.rect(x + 2, y + 2, size - 4, size - 4, inside, ` rx="5" stroke="${hue}" stroke-width="4"`);
  const letters = Math.max(SMALLEST, size * 0.58);
  pen.text(mark.letter, x + size / 2, y + size / 2 + letters * 0.36, {
    size: letters,
    face: 'bold',
    anchor: 'middle',
    colour: mark.isTuned ? pen.colours.sheet : hue,
  });
  if (!mark.isReference) return;
  pen.flag(x + size + 3, y + size / 2, 9, pen.colours.accent);
}

function answerCard(pen: Pen, model: ReportModel, verdict: string): Said | null {
  const sentence = model.sections
    .flatMap(({ blocks }) => blocks)
    .flatMap((block) =>
      block.kind === 'answer' ? block.sentences : block.kind === 'said' ? block.items : [],
    )
    .find((one) => one.verdict_id === verdict);
  if (!sentence) return null;
  const { width, height, colours } = pen;
  const isWide = width > height;
  const size = sentence.text.length > 150 ? 56 : isWide ? 76 : 66;
  const room = width - 2 * MARGIN - 40;
  let y = MARGIN + size;
  if (sentence.contender !== null) {
    badge(pen, model, sentence.contender, MARGIN + 40, MARGIN - 8, 64);
    const name = fitted(nameIn(model, sentence.contender), room - 120, 44, 'bold');
    pen.text(name, MARGIN + 40 + 100, MARGIN + 40, { size: 44, colour: colours.ink, face: 'bold' });
    y += 100;
  }
  const end = pen.lines(sentence.text, MARGIN + 40, y, room, isWide ? 6 : 9, {
    size,
    colour: colours.ink,
    face: 'bold',
  });
  pen.rect(MARGIN, y - size, 8, end - y + size * 0.7, colours.accent);
  let below = end + 10;
  for (const citation of sentence.citations.slice(0, 4)) {
    if (below > height - MARGIN - 90) break;
    const text = fitted(plainText(model, citation.text), room, 36, 'regular');
    pen.text(text, MARGIN + 40, below, {
      size: 36,
      colour: citation.isDecided ? colours.accent : colours.second,
    });
    below += 54;
  }
  return { title: model.title, description: sentence.text };
}

/** The figure of everyone on one scale. */
function chartCard(pen: Pen, model: ReportModel, chart: Chart): Said {
  const { width, height, colours } = pen;
  const unit = chart.unit === '' ? '' : `, ${chart.unit}`;
  const title = `${capital(chart.title)}${unit}`;
  pen.text(fitted(title, width - 2 * MARGIN, 60, 'bold'), MARGIN, MARGIN + 48, {
    size: 60,
    colour: colours.ink,
    face: 'bold',
  });
  const better =
    chart.isLargerBetter === null ? '' : chart.isLargerBetter ? 'more is better' : 'less is better';
  const top = MARGIN + 96;
  if (better !== '') pen.text(better, MARGIN, top, { size: 32, colour: colours.second });
  drawRows(pen, model, chart, {
    left: MARGIN,
    right: width - MARGIN,
    top: top + 30,
    bottom: height - MARGIN - 70,
  });
  return { title: `${title}: ${model.title}`, description: chart.sentence };
}

interface Frame {
  left: number;
  right: number;
  top: number;
  bottom: number;
}

function drawRows(pen: Pen, model: ReportModel, chart: Chart, frame: Frame): void {
  const { colours } = pen;
  const most = Math.max(1, Math.floor((frame.bottom - frame.top) / 56));
  const rows = chart.rows.slice(0, most);
  const step = Math.min(120, (frame.bottom - frame.top) / rows.length);
  const names = Math.min(430, (frame.right - frame.left) * 0.34);
  const [from, to] = [frame.left + 64 + names, frame.right - 250];
  const x = (value: number) => {
    const [low, high] = chart.scale;
    const share = (Math.min(high, Math.max(low, value)) - low) / (high - low || 1);
    return from + share * (to - from);
  };
  if (chart.band) {
    const [low, high] = chart.band;
    pen.rect(x(low), frame.top, Math.max(2, x(high) - x(low)), step * rows.length, colours.band);
  }
  rows.forEach((row, at) => {
    const middle = frame.top + (at + 0.5) * step;
    badge(pen, model, row.contender, frame.left, middle - 22, 44);
    const name = fitted(nameIn(model, row.contender), names - 30, 32, 'regular');
    pen.text(name, frame.left + 72, middle + 11, { size: 32, colour: colours.ink });
    drawMarks(pen, model, row, middle, x);
    const value = row.figure?.printed ?? (row.instead || 'not known');
    const shown = fitted(value, 180, row.figure ? 38 : SMALLEST, row.figure ? 'mono' : 'regular');
    pen.text(shown, frame.right - 50, middle + 12, {
      size: row.figure ? 38 : SMALLEST,
      face: row.figure ? 'mono' : 'regular',
      anchor: 'end',
      colour: row.figure ? colours.ink : colours.second,
    });
    if (row.verdict !== null) drawSign(pen, row.verdict, frame.right - 16, middle);
  });
}

/** A verdict’s sign, drawn: triangles are shapes, not letters. */
function drawSign(pen: Pen, verdict: Verdict, x: number, y: number): void {
  const { accent, second } = pen.colours;
  if (verdict === 'better' || verdict === 'worse') {
    pen.triangle(x, y, 13, verdict === 'better' ? 'up' : 'down', accent);
    return;
  }
  const [sign] = VERDICT_SIGNS[verdict];
  pen.text(sign, x, y + 12, { size: 36, colour: second, anchor: 'middle' });
}

function drawMarks(
  pen: Pen,
  model: ReportModel,
  row: ChartRow,
  y: number,
  x: (value: number) => number,
): void {
  const mark = model.contenders.find((one) => one.contender_id === row.contender);
  const hue = pen.colours.hues[mark?.hue ?? 0] ?? pen.colours.ink;
  row.dots.forEach((value, at) => {
    pen.circle(x(value), y + ((at % 3) - 1) * 9, 5, mark?.isTuned ? hue : pen.colours.sheet, hue);
  });
  if (!row.figure) return;
  const { value, low, high } = row.figure;
  if (low !== null && high !== null) pen.line(x(low), y, x(high), y, hue, 6);
  if (value !== null) pen.line(x(value), y - 20, x(value), y + 20, hue, 6);
}

/** The same place on every contender, side by side. */
function photoCard(pen: Pen, model: ReportModel, row: PhotoRow, photoOf: PhotoBytes): Said {
  const { width, height, colours } = pen;
  const title = fitted(
    `The same place on every contender: ${row.title}`,
    width - 2 * MARGIN,
    52,
    'bold',
  );
  pen.text(title, MARGIN, MARGIN + 42, { size: 52, colour: colours.ink, face: 'bold' });
  pen.text(fitted(row.where, width - 2 * MARGIN, 32, 'regular'), MARGIN, MARGIN + 92, {
    size: 32,
    colour: colours.second,
  });
  const [top, bottom] = [MARGIN + 124, height - MARGIN - 60];
  const columns = Math.min(row.frames.length, width > height ? 3 : 2);
  const lines = Math.ceil(row.frames.length / columns);
  const gap = 22;
  const wide = (width - 2 * MARGIN - gap * (columns - 1)) / columns;
  const high = (bottom - top) / lines;
  row.frames.forEach((frame, at) => {
    const [x, y] = [MARGIN + (at % columns) * (wide + gap), top + Math.floor(at / columns) * high];
    const bytes = photoOf(frame.file);
    if (bytes) pen.image(x, y, wide, high - 72, bytes);
    else pen.rect(x, y, wide, high - 72, colours.band);
    badge(pen, model, frame.contender, x, y + high - 62, 44);
    const text = `${nameIn(model, frame.contender)}${frame.figure ? ` · ${frame.figure.printed}` : ''}`;
    pen.text(fitted(text, wide - 76, 30, 'regular'), x + 68, y + high - 29, {
      size: 30,
      colour: colours.ink,
    });
  });
  return {
    title: row.title,
    description: `${row.where}: ${row.frames.map((frame) => nameIn(model, frame.contender)).join(', ')}`,
  };
}

/** A figure of everyone as a picture for articles: the chart alone, on white. */
export function drawFigure(model: ReportModel, chart: Chart): string {
  const rows = Math.max(1, chart.rows.length);
  const height = 150 + rows * 64 + 20;
  const colours: Colours = LIGHT;
  const pen = new Pen(1200, height, colours);
  const unit = chart.unit === '' ? '' : `, ${chart.unit}`;
  pen.text(fitted(`${chart.title}${unit}`, 1120, 36, 'bold'), 40, 60, {
    size: 36,
    colour: colours.ink,
    face: 'bold',
  });
  pen.text(fitted(chart.sentence, 1120, SMALLEST, 'regular'), 40, 106, {
    size: SMALLEST,
    colour: colours.second,
  });
  drawRows(pen, model, chart, { left: 40, right: 1160, top: 130, bottom: 130 + rows * 64 });
  return pen.svg(chart.title, chart.sentence, colours.sheet);
}
