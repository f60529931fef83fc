import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { afterAll, describe, expect, it } from 'vitest';
import { ToolpathAnalysis } from '../../core/toolpath';
import { analyseFile } from './analyse';
import { statedSettings } from './stated-settings';

const folder = mkdtempSync(join(tmpdir(), 'analyse-test-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** Longer than several of the pieces in which a file is read, without a line end at its end. */
const text = [
  'M83',
  ...Array.from(
    { length: 40_000 },
    (_, at) => `G1 X${(at % 97) / 2} Y${(at % 89) / 3} E0.0${1 + (at % 9)} ;n${at}`,
  ),
  '; layer_height = 0.24',
].join('\n');

describe('a file on disk', () => {
  it('of many pieces, through one buffer or packed, is what it is in memory', async () => {
    const bytes = new TextEncoder().encode(text);
    for (const way of ['plain', 'fast'] as const) {
      const whole = new ToolpathAnalysis({ file: 'part.gcode', way });
      whole.push(bytes);
      const wanted = whole.end();
      expect(wanted.lines).toBe(40_002);
      const path = join(folder, 'part.gcode');
      writeFileSync(path, bytes);
      expect(await analyseFile(path, { way })).toEqual(wanted);
      expect(await statedSettings(path)).toMatchObject({ layer_height_mm: 0.24 });
      const packed = gzipSync(bytes);
      writeFileSync(path, packed);
      expect(await analyseFile(path, { way })).toEqual({ ...wanted, bytes: packed.length });
    }
  });
});
