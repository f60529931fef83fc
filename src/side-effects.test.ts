import { readdirSync, readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { sideEffects } from '../package.json';

/** Every import of ours that asks for no name, by the file that makes it. */
const unnamed = readdirSync('src', { recursive: true, encoding: 'utf8' })
  .filter((file) => /\.(?:ts|tsx|astro)$/.test(file) && !/\.test\.tsx?$/.test(file))
  .flatMap((file) => {
    const path = join('src', file);
    const found = readFileSync(path, 'utf8').matchAll(/^import '(\.{1,2}\/[^']+)';/gm);
    return [...found].map(([, target = '']) => ({ path, target: join(dirname(path), target) }));
  });

describe('a module that does something by being imported', () => {
  // What is not named there is left out of what is built, without a word.
  it('is named in package.json, wherever it is asked for by itself', () => {
    const named = (target: string) =>
      target.endsWith('.css')
        ? sideEffects.includes('**/*.css')
        : sideEffects.includes(`./${target}.ts`) || sideEffects.includes(`./${target}.tsx`);
    expect(unnamed.length).toBeGreaterThan(1);
    expect(unnamed.filter(({ target }) => !named(target))).toEqual([]);
  });
});
