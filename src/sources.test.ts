import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';

const MOST_CHARACTERS = 120;
/** Class names of a mark-up line stay together: no formatter breaks them. */
const CLASSES = /^\s*(?:<\w+ )?class(?:Name)?=/;

const files = readdirSync('src', { recursive: true, encoding: 'utf8' })
  .filter((file) => /\.(?:ts|tsx|astro)$/.test(file) && !/hot[/\\](?:assembly|code)/.test(file))
  .map((file) => ({ file, text: readFileSync(join('src', file), 'utf8') }));

describe('the sources', () => {
  it('are formatted everywhere', () => {
    const word = ['prettier', 'ignore'].join('-');
    expect(files.length).toBeGreaterThan(1000);
    expect(files.filter(({ text }) => text.includes(word)).map(({ file }) => file)).toEqual([]);
  });

  it('give no component a property that React keeps to itself', () => {
    const kept = files.flatMap(({ file, text }) =>
      [...text.matchAll(/interface (\w+Props)\b[^{]*\{([\s\S]*?)\n\}/g)].flatMap(
        ([, name, body = '']) => (/^ {2}(?:key|ref)\??:/m.test(body) ? [`${file}: ${name}`] : []),
      ),
    );
    expect(kept).toEqual([]);
  });

  it('spread no list only to have more of it on a line', () => {
    const packed = files.flatMap(({ file, text }) =>
      [...text.matchAll(/\.\.\.\(\s*\[[^\]]*\] as const\s*\),/g)].map(
        ([found]) => `${file}: ${found}`,
      ),
    );
    expect(packed).toEqual([]);
  });

  it('have no line that is too long to read', () => {
    const long = files.flatMap(({ file, text }) =>
      text
        .split('\n')
        .flatMap((line, at) =>
          line.length > MOST_CHARACTERS && !CLASSES.test(line) ? [`${file}:${at + 1}`] : [],
        ),
    );
    expect(long).toEqual([]);
  });
});
