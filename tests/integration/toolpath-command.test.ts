import { execFile } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { zipSync } from 'fflate';
import { afterAll, describe, expect, it } from 'vitest';
import type { ToolpathFacts } from '../../src/core/toolpath';

const folder = mkdtempSync(join(tmpdir(), 'vergleich-toolpath-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

interface Ended {
  code: number;
  out: string;
  err: string;
}

const run = (...args: string[]): Promise<Ended> =>
  new Promise((resolve) => {
    execFile(process.execPath, ['bin/vergleich.mjs', 'toolpath', ...args], (error, out, err) =>
      resolve({ code: error ? Number(error.code) : 0, out, err }),
    );
  });

const write = (name: string, content: string | Uint8Array): string => {
  const path = join(folder, name);
  writeFileSync(path, content);
  return path;
};

const TEXT =
  '; infill_pattern = grid\n; line_width = 0.45\n; layer_height = 0.2\nG1 X100 E5 F6000\n';

const factsOf = async (path: string): Promise<ToolpathFacts> =>
  JSON.parse((await run(path, '--json')).out) as ToolpathFacts;

describe('toolpath', () => {
  it('reads a file plain, compressed, and in a container alike', async () => {
    const plain = await factsOf(write('a.gcode', TEXT));
    expect(plain).toMatchObject({ file: 'a.gcode', bytes: TEXT.length, lines: 4 });
    const packed = gzipSync(TEXT);
    const zipped = await factsOf(write('a.gcode.gz', packed));
    expect(zipped).toEqual({ ...plain, file: 'a.gcode.gz', bytes: packed.length });
    const container = zipSync({
      'z/later.gcode': new TextEncoder().encode('G1 X1'),
      'plate.gcode': new TextEncoder().encode(TEXT),
      'model.xml': new Uint8Array([60]),
    });
    const contained = await factsOf(write('a.3mf', container));
    expect(contained).toEqual({ ...plain, file: 'a.3mf', bytes: container.length });
  });

  it('says claim, command and reach with a machine', async () => {
    const machine = write(
      'machine.json',
      JSON.stringify({ claimed_speed_mm_s: 500, max_flow_mm3_s: 20 }),
    );
    const { code, out } = await run(write('b.gcode', TEXT), '--machine', machine);
    expect(code).toBe(0);
    expect(out).toContain('Claimed 500 mm/s: the file asks for 100 mm/s and 100 mm/s is reached');
    expect(out).toContain(
      'the file itself does not ask for it; next, the claim would need 45.0 mm³/s',
    );
  });

  it('names what two files differ in', async () => {
    const one = write('one.gcode', TEXT);
    const two = write('two.gcode', TEXT.replace('grid', 'lines'));
    const { out } = await run(one, two, '--json');
    expect(JSON.parse(out)).toMatchObject({
      files: [{ file: 'one.gcode' }, { file: 'two.gcode' }],
      differences: [{ key: 'infill_pattern', values: ['grid', 'lines'], weight: 'held' }],
    });
  });

  it('ends with 1 and a reason where a file cannot be read', async () => {
    const packed = gzipSync(TEXT.repeat(2000));
    const wrong: [string[], string][] = [
      [[join(folder, 'none.gcode')], 'there is no such file'],
      [[write('empty.gcode', '')], 'the file is empty'],
      [[write('still.gcode', '; nothing\nM104 S200\n')], 'no line of it moves anything'],
      [[write('cut.gcode.gz', packed.subarray(0, packed.length / 2))], 'is cut off or damaged'],
      [
        [write('cut.3mf', zipSync({ 'a.gcode': new TextEncoder().encode(TEXT) }).subarray(0, 60))],
        'no container that can be read',
      ],
      [[write('no.3mf', zipSync({ 'a.txt': new Uint8Array([1]) }))], 'holds no sliced file'],
      [
        [write('bomb.gcode.gz', gzipSync(Buffer.alloc(300 * 1024 * 1024, 59)))],
        'unpacks to far more',
      ],
      [[write('c.gcode', TEXT), '--machine', write('bad.json', '{"speed":1}')], 'bad.json'],
    ];
    for (const [args, reason] of wrong) {
      const { code, out, err } = await run(...args);
      expect([code, out], reason).toEqual([1, '']);
      expect(err).toContain(reason);
      expect(err).not.toMatch(/\n\s+at /);
    }
    expect((await run()).code).toBe(2);
  });

  it('goes through binary junk within limits', async () => {
    const junk = Uint8Array.from({ length: 3_000_000 }, (_, at) => (at * at * 31 + at * 7) % 256);
    const { code, err } = await run(write('junk.gcode', junk));
    expect([0, 1]).toContain(code);
    if (code === 1) expect(err).toContain('moves anything');
  });
});
