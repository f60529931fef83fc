import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { DARK, LIGHT, type Colours } from './colours';

const css = readFileSync('src/styles/tokens.css', 'utf8');
const [light = '', dark = ''] = css.split('@media');

/** The colours of a theme, as the style sheet has them. */
function inSheet(text: string): Colours {
  const of = (name: string) => new RegExp(`--${name}: (#[0-9a-f]{6});`).exec(text)?.[1] ?? '';
  return {
    sheet: of('sheet'),
    ink: of('ink'),
    second: of('ink-2'),
    line: of('line'),
    band: of('band'),
    accent: of('plum'),
    hues: Array.from({ length: 8 }, (_, at) => of(`hue-${at}`)),
  };
}

/** Relative luminance and contrast as WCAG 2.2 defines them. */
function contrast(a: string, b: string): number {
  const luminance = (colour: string) => {
    const [red = 0, green = 0, blue = 0] = [1, 3, 5].map((at) => {
      const share = Number.parseInt(colour.slice(at, at + 2), 16) / 255;
      return share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4;
    });
    return 0.2126 * red + 0.7152 * green + 0.0722 * blue;
  };
  const [lower = 0, higher = 0] = [luminance(a), luminance(b)].sort((x, y) => x - y);
  return (higher + 0.05) / (lower + 0.05);
}

describe.each([
  ['light', LIGHT, light],
  ['dark', DARK, dark],
])('the colours of cards, %s', (_, colours, sheet) => {
  it('are those of the pages', () => {
    expect(colours).toEqual(inSheet(sheet));
  });

  it('can be read on their sheet: text 4.5 to 1, marks 3 to 1', () => {
    for (const text of [colours.ink, colours.second, colours.accent]) {
      expect(contrast(text, colours.sheet)).toBeGreaterThanOrEqual(4.5);
    }
    for (const hue of colours.hues) expect(contrast(hue, colours.sheet)).toBeGreaterThanOrEqual(3);
  });
});

it('black on white is 21 to 1', () => {
  expect(contrast('#000000', '#ffffff')).toBeCloseTo(21, 9);
});
