import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { keepCompiled, runCompiled } from '../../scripts/lib/compiled.mjs';

let folder: string;
let file: string;

beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'vergleich-compiled-'));
  file = join(folder, 'one.cjs');
});

afterEach(() => {
  rmSync(folder, { recursive: true });
});

describe('a file that is kept compiled', () => {
  it('exports what it exported, with Node’s modules and its own place', () => {
    writeFileSync(
      file,
      "exports.name = require('node:path').basename(__filename); exports.module = module.exports === exports;",
    );
    keepCompiled(file);
    expect(runCompiled(file)).toEqual({ name: 'one.cjs', module: true });
  });

  it('is not compiled again', () => {
    writeFileSync(file, 'exports.figure = 1;');
    keepCompiled(file);
    // V8 knows a source by its length: what runs is what was kept.
    writeFileSync(file, 'exports.figure = 2;');
    expect(runCompiled(file)).toEqual({ figure: 1 });
    writeFileSync(file, 'exports.figure = 30;');
    expect(runCompiled(file)).toEqual({ figure: 30 });
  });

  it.each([
    ['is of another V8', () => Buffer.alloc(64, 7)],
    ['was cut off', () => Buffer.alloc(0)],
  ])('runs where what was kept %s', (_, spoiled) => {
    writeFileSync(file, 'exports.figure = 1;');
    keepCompiled(file);
    writeFileSync(`${file}.compiled`, spoiled());
    expect(runCompiled(file)).toEqual({ figure: 1 });
    rmSync(`${file}.compiled`);
    expect(runCompiled(file)).toEqual({ figure: 1 });
  });
});
