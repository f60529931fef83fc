import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import type * as opentype from 'opentype.js';
import type { Font, PathCommand } from 'opentype.js';

/** A weight of the type that cards are set in. */
export type Face = 'regular' | 'bold' | 'mono';

const SUBSETS = ['latin', 'latin-ext', 'greek', 'cyrillic'] as const;
const FAMILIES: Readonly<Record<Face, readonly [string, number]>> = {
  regular: ['ibm-plex-sans', 400],
  bold: ['ibm-plex-sans', 600],
  mono: ['ibm-plex-mono', 400],
};

const find = createRequire(import.meta.url);
// The package is of the older kind of modules.
const { parse } = find('opentype.js') as typeof opentype;
const opened = new Map<string, Font | null>();

/** A font by its subset; null where the family has no such subset. */
function fontOf(face: Face, subset: string): Font | null {
  const [family, weight] = FAMILIES[face];
  const name = `@fontsource/${family}/files/${family}-${subset}-${weight}-normal.woff`;
  let font = opened.get(name);
  if (font === undefined) {
    try {
      const bytes = readFileSync(find.resolve(name));
      font = parse(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength));
    } catch {
      font = null;
    }
    opened.set(name, font);
  }
  return font;
}

interface FoundGlyph {
  font: Font;
  character: string;
}

const glyphs: Readonly<Record<Face, Map<string, FoundGlyph>>> = {
  regular: new Map(),
  bold: new Map(),
  mono: new Map(),
};
/** So many characters are remembered: all that the fonts have, and no end of those that they do not. */
const MOST_GLYPHS = 5000;

/** The font that has a character, and its glyph; the sign for what no font has stands for all others. */
function glyphOf(face: Face, character: string): FoundGlyph {
  const known = glyphs[face];
  let found = known.get(character);
  if (!found) {
    found = findGlyph(face, character);
    if (known.size < MOST_GLYPHS) known.set(character, found);
  }
  return found;
}

function findGlyph(face: Face, character: string): FoundGlyph {
  for (const subset of SUBSETS) {
    const font = fontOf(face, subset);
    if (font && font.charToGlyphIndex(character) > 0) return { font, character };
  }
  const font = fontOf(face, 'latin');
  if (!font) throw new Error('the fonts of the cards are not installed');
  return { font, character: font.charToGlyphIndex('\u25a1') > 0 ? '\u25a1' : '?' };
}

/** Runs of characters that one font has. */
function runsOf(face: Face, text: string): { font: Font; text: string }[] {
  const runs: { font: Font; text: string }[] = [];
  for (const character of text.normalize('NFC')) {
    const found = glyphOf(face, character);
    const last = runs.at(-1);
    if (last?.font === found.font) last.text += found.character;
    else runs.push({ font: found.font, text: found.character });
  }
  return runs;
}

/** How wide a text is at a size, px. */
export const widthOf = (text: string, size: number, face: Face): number =>
  runsOf(face, text).reduce((sum, run) => sum + run.font.getAdvanceWidth(run.text, size), 0);

/** A letter as it is drawn: its outline about the origin, and where it stands. */
export interface PlacedLetter {
  /** The same for the same outline. */
  key: string;
  outline: string;
  x: number;
  y: number;
}

/** A text as the outlines of its letters, their base line at `y`. */
export function lettersOf(
  text: string,
  x: number,
  y: number,
  size: number,
  face: Face,
): PlacedLetter[] {
  const letters: PlacedLetter[] = [];
  let at = x;
  for (const run of runsOf(face, text)) {
    run.font.forEachGlyph(run.text, at, y, size, undefined, (glyph, left, base) => {
      const outline = glyph.getPath(0, 0, size).commands.map(written).join('');
      const key = `${run.font.names.fontFamily?.en ?? ''} ${face} ${size} ${glyph.index} ${outline.length}`;
      if (outline !== '') letters.push({ key, outline, x: left, y: base });
    });
    at += run.font.getAdvanceWidth(run.text, size);
  }
  return letters;
}

/** A step of an outline as path data, to a tenth of a pixel. */
function written(step: PathCommand): string {
  switch (step.type) {
    case 'M':
    case 'L':
      return step.type + packed(step.x, step.y);
    case 'Q':
      return `Q${packed(step.x1, step.y1, step.x, step.y)}`;
    case 'C':
      return `C${packed(step.x1, step.y1, step.x2, step.y2, step.x, step.y)}`;
    case 'Z':
      return 'Z';
  }
}

const packed = (...values: readonly number[]): string =>
  values.map((value) => String(Math.round(10 * value) / 10)).join(' ');

/** Breaks a text into lines no wider than a width; a word that is wider is cut. */
export function linesOf(text: string, width: number, size: number, face: Face): string[] {
  const lines: string[] = [];
  let line = '';
  // A number and its unit stay together.
  const joined = text.replace(/(\d) (?=%|mm|min|g|h|EUR|prints?\b)/g, '$1\u00a0');
  for (const word of joined.split(/[ \t\r\n]+/).filter((one) => one !== '')) {
    const longer = line === '' ? word : `${line} ${word}`;
    if (widthOf(longer, size, face) <= width) {
      line = longer;
      continue;
    }
    if (line !== '') lines.push(line);
    line = word;
    while (widthOf(line, size, face) > width && [...line].length > 1) {
      const head = longestHead(line, (part) => widthOf(part, size, face) <= width);
      lines.push(head);
      line = line.slice(head.length);
    }
  }
  return line === '' ? lines : [...lines, line];
}

/** A text that fits a width, its end cut off where it must be. */
export function fitted(text: string, width: number, size: number, face: Face): string {
  if (widthOf(text, size, face) <= width) return text;
  const head = longestHead(text, (part) => widthOf(`${part}…`, size, face) <= width);
  return `${head.trimEnd()}…`;
}

/** The longest beginning of a text that fits, without its last character at least; its first one at least. */
function longestHead(text: string, fits: (part: string) => boolean): string {
  const characters = [...text];
  // The longer, the wider: it lies between what is known to fit and what is not.
  let [least, most] = [1, characters.length - 1];
  while (least < most) {
    const middle = Math.ceil((least + most) / 2);
    if (fits(characters.slice(0, middle).join(''))) least = middle;
    else most = middle - 1;
  }
  return characters.slice(0, least).join('');
}
