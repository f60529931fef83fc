import { twoDigits } from '../../core/model/study';
import { existsSync, readFileSync } from 'node:fs';
import { copyFile, mkdir, readFile, writeFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import {
  cardSubjects,
  drawCard,
  drawFigure,
  markdownOf,
  pageOf,
  type CardLook,
  type CardSubject,
} from '../../forms';
import type { ReportModel } from '../../core/text/report';
import { pngOf } from './png';
import { readerFolder } from './seal';

const find = createRequire(import.meta.url);

/** The type of the page, by its name in the report. */
const FONTS = {
  'fonts/sans-400.woff2': '@fontsource/ibm-plex-sans/files/ibm-plex-sans-latin-400-normal.woff2',
  'fonts/sans-600.woff2': '@fontsource/ibm-plex-sans/files/ibm-plex-sans-latin-600-normal.woff2',
  'fonts/mono-400.woff2': '@fontsource/ibm-plex-mono/files/ibm-plex-mono-latin-400-normal.woff2',
} as const;

/** Cards that go with every report; all others are drawn when they are asked for. */
const MOST_CARDS = 6;

/** Puts files into a folder, and remembers which. */
function writer(folder: string) {
  const written: string[] = [];
  const put = async (path: string, content: string | Uint8Array) => {
    await mkdir(dirname(join(folder, path)), { recursive: true });
    await writeFile(join(folder, path), content);
    written.push(path);
  };
  return { written, put };
}

/**
 * Writes a report into a folder in which its photos are: the page with its style, script and type,
 * Markdown, figures as drawings, a card of its photos.
 *
 * @returns the paths of what was written
 */
export async function writePage(
  folder: string,
  model: ReportModel,
  { hasPictures = true } = {},
): Promise<string[]> {
  const { written, put } = writer(folder);
  await put('index.html', pageOf(model));
  await put('report.md', markdownOf(model));
  for (const name of ['report.css', 'report.js']) {
    await put(name, await readFile(join(readerFolder(), name)));
  }
  for (const [path, source] of Object.entries(FONTS)) {
    await mkdir(join(folder, 'fonts'), { recursive: true });
    await copyFile(find.resolve(source), join(folder, path));
    written.push(path);
  }
  for (const chart of model.charts) {
    await put(`figures/${chart.id}.svg`, drawFigure(model, chart));
  }
  if (!hasPictures) return written;
  const [row] = model.photos;
  for (const size of row ? (['wide', 'square'] as const) : []) {
    const subject = { kind: 'photos', id: row?.id ?? '' } as const;
    const svg = cardOf(folder, model, subject, { size, theme: 'light' });
    // As a drawing it would hold the photos once more.
    if (svg !== null) await put(`cards/photos-${size}.png`, await pngOf(svg));
  }
  return written;
}

/** Draws the other cards that go with a report, for videos and posts. @returns the paths of what was written */
export async function writeCards(
  folder: string,
  model: ReportModel,
  { hasPictures = true } = {},
): Promise<string[]> {
  const { written, put } = writer(folder);
  const subjects = cardSubjects(model).filter(({ subject }) => subject.kind !== 'photos');
  for (const [at, { subject }] of subjects.slice(0, MOST_CARDS).entries()) {
    const stem = `cards/${twoDigits(at + 1)}-${nameOf(subject)}`;
    for (const size of ['wide', 'square'] as const) {
      const svg = cardOf(folder, model, subject, { size, theme: 'light' });
      if (svg === null) continue;
      if (hasPictures) await put(`${stem}-${size}.png`, await pngOf(svg));
      await put(`${stem}-${size}.svg`, svg);
    }
  }
  return written;
}

const nameOf = (subject: CardSubject): string =>
  subject.kind === 'answer' ? 'answer' : subject.id;

/** A card with photos of a folder. */
const cardOf = (
  folder: string,
  model: ReportModel,
  subject: CardSubject,
  look: CardLook,
): string | null =>
  drawCard(model, subject, look, (file) => {
    const path = join(folder, file);
    return existsSync(path) ? readFileSync(path) : null;
  });
