import type { Colours } from '../colours';
import { fitted, lettersOf, linesOf, widthOf, type Face } from './letters';

const escaped = (text: string): string =>
  text.replace(/[&<>"']/g, (sign) => `&#${sign.charCodeAt(0)};`);

interface Lettering {
  size: number;
  colour: string;
  face?: Face;
  anchor?: 'start' | 'middle' | 'end';
}

/** Draws a picture as SVG. Letters become outlines, so that it looks the same wherever it is opened. */
export class Pen {
  readonly #parts: string[] = [];
  /** Outlines of letters, each once. */
  readonly #letters = new Map<string, { name: string; outline: string }>();

  constructor(
    readonly width: number,
    readonly height: number,
    readonly colours: Colours,
  ) {}

  text(
    text: string,
    x: number,
    y: number,
    { size, colour, face = 'regular', anchor = 'start' }: Lettering,
  ): void {
    const wide = anchor === 'start' ? 0 : widthOf(text, size, face);
    const from = anchor === 'middle' ? x - wide / 2 : x - wide;
    const letters = lettersOf(text, anchor === 'start' ? x : from, y, size, face).map((letter) => {
      const name = this.#letters.get(letter.key)?.name ?? `g${this.#letters.size}`;
      this.#letters.set(letter.key, { name, outline: letter.outline });
      return `<use href="#${name}" x="${n(letter.x)}" y="${n(letter.y)}"/>`;
    });
    if (letters.length > 0) this.#parts.push(`<g fill="${colour}">${letters.join('')}</g>`);
  }

  /** Lines of text one under another. @returns where the next line would stand */
  lines(
    text: string,
    x: number,
    y: number,
    width: number,
    most: number,
    lettering: Lettering,
  ): number {
    const { size, face = 'regular' } = lettering;
    const all = linesOf(text, width, size, face);
    const shown = all.slice(0, most);
    if (all.length > most)
      shown[most - 1] = fitted(`${shown.at(-1)} ${all[most]}`, width, size, face);
    shown.forEach((line, at) => this.text(line, x, y + at * size * 1.3, lettering));
    return y + shown.length * size * 1.3;
  }

  rect(x: number, y: number, width: number, height: number, fill: string, more = ''): void {
    this.#parts.push(
      `<rect x="${n(x)}" y="${n(y)}" width="${n(width)}" height="${n(height)}" fill="${fill}"${more}/>`,
    );
  }

  line(x1: number, y1: number, x2: number, y2: number, stroke: string, width: number): void {
    this.#parts.push(
      `<line x1="${n(x1)}" y1="${n(y1)}" x2="${n(x2)}" y2="${n(y2)}" stroke="${stroke}" stroke-width="${width}"/>`,
    );
  }

  circle(x: number, y: number, radius: number, fill: string, stroke: string): void {
    this.#parts.push(
      `<circle cx="${n(x)}" cy="${n(y)}" r="${radius}" fill="${fill}" stroke="${stroke}" stroke-width="2"/>`,
    );
  }

  /** A triangle about a point: up is filled, down is open. */
  triangle(x: number, y: number, size: number, way: 'up' | 'down', colour: string): void {
    const tip = way === 'up' ? y - size : y + size;
    const base = way === 'up' ? y + size : y - size;
    const fill = way === 'up' ? colour : 'none';
    this.#parts.push(
      `<path d="M${n(x)} ${n(tip)}L${n(x + size)} ${n(base)}L${n(x - size)} ${n(base)}Z" ` +
        `fill="${fill}" stroke="${colour}" stroke-width="4"/>`,
    );
  }

  /** The flag of the reference. */
  flag(x: number, y: number, size: number, colour: string): void {
    this.#parts.push(
      `<path d="M${n(x)} ${n(y - size)}L${n(x + 1.6 * size)} ${n(y)}L${n(x)} ${n(y + size)}Z" fill="${colour}"/>`,
    );
  }

  image(x: number, y: number, width: number, height: number, jpeg: Uint8Array): void {
    const data = Buffer.from(jpeg).toString('base64');
    this.#parts.push(
      `<image x="${n(x)}" y="${n(y)}" width="${n(width)}" height="${n(height)}" ` +
        `preserveAspectRatio="xMidYMid slice" href="data:image/jpeg;base64,${data}"/>`,
    );
  }

  /** The picture, with what it shows in words. */
  svg(title: string, description: string, background: string | null): string {
    const paper =
      background === null
        ? ''
        : `<rect width="${this.width}" height="${this.height}" fill="${background}"/>`;
    const letters = [...this.#letters.values()].map(
      ({ name, outline }) => `<path id="${name}" d="${outline}"/>`,
    );
    return [
      `<svg xmlns="http://www.w3.org/2000/svg" width="${this.width}" height="${this.height}" ` +
        `viewBox="0 0 ${this.width} ${this.height}" role="img">`,
      `<title>${escaped(title)}</title><desc>${escaped(description)}</desc>`,
      `<defs>${letters.join('')}</defs>`,
      paper,
      ...this.#parts,
      '</svg>\n',
    ].join('');
  }
}

const n = (value: number): string => Number(value.toFixed(1)).toString();
