import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';

type Exports = Readonly<Record<string, unknown>>;
const files = import.meta.glob<Exports>(['./**/*.ts', '!./**/*.test.ts', '!./**/hot/**']);

interface Example {
  file: string;
  text: string;
}

const sourceOf = (file: string): string => readFileSync(new URL(file, import.meta.url), 'utf8');

/** The examples of a file's docstrings, each without the stars of its comment. */
const examplesOf = (file: string): Example[] =>
  [...sourceOf(file).matchAll(/^ \* @example ([\s\S]*?)(?=^ \* @|^ \*\/)/gm)].map(([, text]) => ({
    file,
    text: (text ?? '').replaceAll(/^ \* ?/gm, '').trim(),
  }));

const examples = Object.keys(files).flatMap(examplesOf);

/** What a piece of code comes to where these names are known. */
const valueOf = (code: string, known: Exports): unknown =>
  Reflect.apply(
    // What runs here are the docstrings of this repository.
    // oxlint-disable-next-line typescript/no-implied-eval
    new Function(...Object.keys(known), `return (${code});`),
    null,
    Object.values(known),
  );

/** As many decimals as the example writes: what is further is not compared. */
const decimalsIn = (text: string): number =>
  Math.max(0, ...[...text.matchAll(/\d\.(\d+)/g)].map(([, after]) => after?.length ?? 0));

/** Numbers are as they are written, objects have at least what the example names. */
function agree(found: unknown, said: unknown, decimals: number): void {
  if (typeof said === 'number') {
    expect(Math.abs(Number(found) - said)).toBeLessThanOrEqual(0.5 * 10 ** -decimals + 1e-12);
  } else if (said instanceof Map || said === null || typeof said !== 'object') {
    expect(found).toEqual(said);
  } else {
    if (Array.isArray(said)) expect(found).toHaveLength(said.length);
    for (const [name, value] of Object.entries(said)) {
      agree(Reflect.get(Object(found), name), value, decimals);
    }
  }
}

describe('the examples of docstrings', () => {
  it.each(examples)('$file: $text', async ({ file, text }) => {
    const at = text.lastIndexOf('// ');
    expect(at, 'an example ends with what it comes to, after //').toBeGreaterThan(0);
    const known = (await files[file]?.()) ?? {};
    const said = text.slice(at + 3);
    agree(valueOf(text.slice(0, at), known), valueOf(said, {}), decimalsIn(said));
  });

  it('are there for everything that the statistics offer', async () => {
    const without: string[] = [];
    for (const [file, load] of Object.entries(files)) {
      if (!file.startsWith('./statistics/') || file.endsWith('/index.ts')) continue;
      const source = sourceOf(file);
      for (const [name, value] of Object.entries(await load())) {
        const doc = new RegExp(
          `/\\*\\*((?:(?!\\*/)[\\s\\S])*)\\*/\\s*export (?:const|function) ${name}\\b`,
        );
        const has = doc.exec(source)?.[1]?.includes('@example') ?? false;
        if (typeof value === 'function' && !has) without.push(`${file}: ${name}`);
      }
    }
    // The analysis of a whole study: what it rests on, `typeTwo`, has its example.
    expect(without).toEqual(['./statistics/effects/effects.ts: effectsOf']);
  });
});
