import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it, vi } from 'vitest';
import { codeOf, compileHot } from '../../../../scripts/lib/hot.mjs';
import { NoMotionError, ToolpathAnalysis, type AnalysisOptions, type MachineRecord } from '..';
import { WordReader } from '../words';
import { canCompile } from './compiled';
import { HotMotion } from './hot-motion';
import { Limits } from '../limits';
import { HotLines } from './hot-lines';

const encoder = new TextEncoder();

/** What is found in a file that arrives in pieces of so many bytes. */
function found(
  text: string | Uint8Array,
  options: Partial<AnalysisOptions>,
  piece = 1 << 20,
): unknown {
  const bytes = typeof text === 'string' ? encoder.encode(text) : text;
  const analysis = new ToolpathAnalysis({ file: 'part', ...options });
  for (let at = 0; at < bytes.length; at += piece) analysis.push(bytes.subarray(at, at + piece));
  try {
    return analysis.end();
  } catch (error) {
    if (error instanceof NoMotionError) return error.message;
    throw error;
  }
}

/** Expects that the compiled loop finds what the plain way finds: the same numbers, to the last bit. */
function expectSame(text: string, machine: MachineRecord = {}, piece?: number): void {
  const plain = found(text, { machine, way: 'plain' });
  expect(found(text, { machine, way: 'fast' }, piece)).toEqual(plain);
}

const digits = (most: number) =>
  fc.array(fc.integer({ min: 0, max: 9 }), { maxLength: most }).map((all) => all.join(''));
/** A number as files write it, and as none should. */
const number = fc.oneof(
  {
    weight: 12,
    arbitrary: fc.double({ min: -200, max: 200, noNaN: true }).map((value) => value.toFixed(3)),
  },
  {
    weight: 3,
    arbitrary: fc
      .tuple(fc.constantFrom('', '-', '+'), digits(9), fc.constantFrom('', '.'), digits(9))
      .map((parts) => parts.join('')),
  },
  {
    weight: 1,
    arbitrary: fc.constantFrom(
      '',
      '.',
      '-',
      '1e3',
      '1.2.3',
      '--1',
      '0',
      '-0',
      '5.',
      '.5',
      '1,5',
      '123456789012345678',
    ),
  },
);
const word = (letters: string) =>
  fc
    .tuple(fc.constantFrom(...letters), fc.constantFrom('', '', '', ' '), number)
    .map((parts) => parts.join(''));
const gap = fc.constantFrom(' ', ' ', ' ', '', '\t', '  ');
const joined = (parts: fc.Arbitrary<string[]>) =>
  fc.tuple(parts, gap).map(([words, between]) => words.join(between));
const move = joined(
  fc
    .tuple(
      fc.constantFrom('G1', 'G1', 'G1', 'G0', 'g1', 'G01', 'G1.0', 'G1.5', 'G'),
      fc.array(word('XYZEFxyzef'), { maxLength: 5 }),
    )
    .map(([command, words]) => [command, ...words]),
);
const arc = joined(
  fc
    .tuple(fc.constantFrom('G2', 'G3'), fc.array(word('XYZEFIJR'), { maxLength: 6 }))
    .map(([command, words]) => [command, ...words]),
);
/** An arc that there is: a quarter of a circle from wherever the nozzle stands. */
const quarter = fc
  .tuple(fc.constantFrom('G2', 'G3'), fc.double({ min: 0.5, max: 30, noNaN: true }))
  .map(
    ([command, r]) =>
      `G91\nM83\n${command} X${r.toFixed(4)} Y${r.toFixed(4)} R${r.toFixed(4)} E${(r / 20).toFixed(5)}\nG90`,
  );
const other = fc.constantFrom(
  'G28',
  'G28 X',
  'G90',
  'G91',
  'M82',
  'M83',
  'G20',
  'G21',
  'G92 E0',
  'G92 X5 Y-3',
  'G4 P100',
  'G10',
  'G11',
  'M207 S1.2 F1800',
  'T0',
  'T1',
  'T',
  'M220 S80',
  'M221 S95',
  'M106 S128',
  'M104 S210',
  'M109 S215',
  'M600',
  'M201 X900 E4000',
  'M203 Z8',
  'M204 P800 T2000',
  'M205 X8 Y8',
  'M205 J0.013',
  'M205 X0',
  'M117 hello',
  ';TYPE:outer-wall',
  ';TYPE:skirt',
  ';TYPE:prime',
  ';LAYER_CHANGE',
  ';HEIGHT:0.2',
  '; line_width = 0.45',
  '',
  ' ',
  ';',
  '(note) G1 X3',
  'G1 (in) X4 E1',
  '%',
  '42',
  'hello',
  'G1 X1\u0007',
  'G1 Y2 ;tab\there',
  'M73 P5',
);
/** A line with a number and a checksum, which may be wrong. */
const numbered = fc
  .tuple(move, fc.nat(99_999), fc.integer({ min: 0, max: 9 }))
  .map(([text, n, slip]) => {
    const whole = `N${n} ${text}`;
    const sum = encoder.encode(whole).reduce((all, byte) => all ^ byte, 0);
    return `${whole}*${slip === 0 ? sum + 1 : sum}`;
  });
const line = fc
  .tuple(
    fc.oneof(
      { weight: 10, arbitrary: move },
      { weight: 2, arbitrary: arc },
      { weight: 2, arbitrary: quarter },
      { weight: 3, arbitrary: other },
      { weight: 2, arbitrary: numbered },
    ),
    fc.constantFrom('', '', '', '', ' ; and a word', ';x', ' ', '\r'),
  )
  .map(([text, behind]) => text + behind);
const file = fc
  .tuple(
    fc.constantFrom('', '', '\ufeff'),
    fc.array(line, { maxLength: 120 }),
    fc.constantFrom('', '\n'),
  )
  .map(([mark, lines, end]) => mark + lines.join('\n') + end);
const machine: fc.Arbitrary<MachineRecord> = fc.constantFrom(
  {},
  { claimed_speed_mm_s: 120, max_flow_mm3_s: 12 },
  { jerk_mm_s: { x: 9, y: 9, z: 0.4 }, accel_print: 3000, max_speed_mm_s: { x: 150, y: 150 } },
  { junction_deviation_mm: 0.2, max_accel_mm_s2: { x: 500, y: 800, z: 50 }, accel_travel: 9000 },
);

describe('the compiled loop', () => {
  it('is compiled from its sources', async () => {
    expect(readFileSync(codeOf('toolpath'), 'utf8')).toBe(await compileHot('toolpath'));
  });

  it('finds what the plain way finds, whatever stands in a file and however it arrives', () => {
    expect(canCompile()).toBe(true);
    fc.assert(
      fc.property(file, machine, fc.integer({ min: 1, max: 300 }), (text, record, piece) =>
        expectSame(text, record, piece),
      ),
      { numRuns: 150 },
    );
  });

  it('finds it over runs that are longer than its queue, at full speed and from rest to rest', () => {
    const steps = (count: number, at: (step: number) => string) =>
      `M83\nG1 F9000\n${Array.from({ length: count }, (_, step) => at(step)).join('\n')}`;
    // A long curve of short pieces; a straight way on which nothing is ever final; a zigzag of full stops.
    expectSame(
      steps(
        30_000,
        (n) =>
          `G1 X${(50 + 40 * Math.cos(n / 90)).toFixed(4)} Y${(50 + 40 * Math.sin(n / 90)).toFixed(4)} E0.02`,
      ),
    );
    // Corners that hardly turn, where each axis may change its speed by very little.
    expectSame(
      steps(
        5000,
        (n) =>
          `G1 X${(90 * Math.cos(n / 900)).toFixed(4)} Y${(90 * Math.sin(n / 900)).toFixed(4)} ` +
          `E${(0.01 + (n % 3) / 900).toFixed(5)}`,
      ),
      { jerk_mm_s: { x: 0.02, y: 0.05, e: 0.1 } },
    );
    expectSame(
      steps(20_000, (n) => `G1 X${(n / 1e4).toFixed(4)} E0.00001`),
      { max_accel_mm_s2: { x: 0.5 } },
    );
    expectSame(steps(9000, (n) => `G1 X${n % 2 === 0 ? 10 : 0} E0.5`));
  });

  it('has room for every speed and every role', () => {
    const roles = ['outer-wall', 'infill', 'bridge', 'support', 'ironing', 'prime', 'skirt'];
    const lines = roles.flatMap((role, at) => [
      `;TYPE:${role}`,
      `G1 F${10 ** (at + 1) * 6}`,
      `G1 X${at * 900} Y${at} E${0.3 * at + 0.1}`,
    ]);
    expectSame(`M83\n${lines.join('\n')}`, {
      max_speed_mm_s: { x: 1e7, y: 1e7, e: 1e7 },
      max_accel_mm_s2: { x: 1e9, y: 1e9, e: 1e9 },
      accel_print: 1e9,
    });
  });

  it('keeps the sums of each tool, and what is purged after a change', () => {
    expectSame(
      'M83\nT1\n;TYPE:prime\nG1 X5 E3\nT0\nG1 X9 E1\nG1 E-2\nT1\nG1 E-1\nG1 X1 E4\nT7\nT0\nG1 Y4 E1',
    );
  });

  it('tells as many tools and accelerations apart as the plain way does, and no more', () => {
    const many = Array.from(
      { length: 1100 },
      (_, at) => `T${at + 1}\nG1 X${at % 90} E${1 + (at % 7)}`,
    );
    expectSame(`M83\n${many.join('\n')}\nT1\nG1 X3 E9\nT1099\nG1 X4 E9`);
    const set = Array.from({ length: 10_050 }, (_, at) => `M204 P${100 + at}\nG1 X${at % 90} E1`);
    expectSame(`M83\n${set.join('\n')}`);
  });

  it('is done without where nothing may be compiled', async () => {
    const text = 'M83\nG1 X10 E1 F600\nG2 X20 Y0 R5 E1\n';
    const machine = { claimed_speed_mm_s: 10 };
    vi.resetModules();
    vi.stubGlobal('WebAssembly', {
      ...WebAssembly,
      Module: class {
        constructor() {
          throw new Error('forbidden by policy');
        }
      },
    });
    try {
      const [{ canCompile: may }, { ToolpathAnalysis: Analysis }] = await Promise.all([
        import('./compiled'),
        import('../analysis'),
      ]);
      expect(may()).toBe(false);
      const analysis = new Analysis({ file: 'part', machine });
      analysis.push(encoder.encode(text));
      expect(analysis.end()).toEqual(found(text, { machine, way: 'plain' }));
    } finally {
      vi.unstubAllGlobals();
      vi.resetModules();
    }
  });

  it('cuts a line that is too long, and goes on behind it', () => {
    const long = 'x'.repeat(1024 * 1024 + 50);
    for (const text of [
      `G1 X1 E1\n;${long}\nG1 X2 E2\n`,
      `G1 X1 E1\nG1 X5 ;${long}\nG1 X2 E2\n`,
      `G1 X1 E1\nG1 X5 ;${long}${long}\r\nG1 X2 E2`,
      `${long}`,
    ]) {
      expectSame(text);
      expectSame(text, {}, 64 * 1024);
    }
  });

  it('takes bytes that are no text', () => {
    const bytes = new Uint8Array([
      ...encoder.encode('G1 X1 E1\n'),
      0xff,
      0xfe,
      0,
      10,
      0xc1,
      0x31,
      10,
      ...encoder.encode('G1 X9 E2'),
    ]);
    expect(found(bytes, { way: 'fast' })).toEqual(found(bytes, { way: 'plain' }));
  });
});

/** The number of a word as the compiled loop reads it: how far the nozzle goes; and as the words are read. */
function readBoth(text: string): { hot: number; slow: number } {
  const motion = new HotMotion(new Limits({}), null);
  let handedOn = 0;
  const lines = new HotLines(motion.compiled, () => (handedOn += 1));
  lines.push(encoder.encode(`G1 X${text}\n`));
  const { ways } = motion.done();
  const words = new WordReader();
  const bytes = encoder.encode(`G1 X${text}`);
  words.read(bytes, 0, bytes.length);
  return { hot: handedOn === 1 ? Number.NaN : ways.travel_mm, slow: Math.abs(words.value(88)) };
}

describe('numbers', () => {
  const decimal = fc
    .tuple(
      fc.constantFrom('', '-'),
      fc.bigInt({ min: 1n, max: 10n ** 17n - 1n }),
      fc.integer({ min: 0, max: 17 }),
    )
    .map(([sign, mantissa, decimals]) => {
      const text = mantissa.toString().padStart(decimals + 1, '0');
      return decimals === 0
        ? sign + text
        : `${sign}${text.slice(0, -decimals)}.${text.slice(-decimals)}`;
    });

  it('of up to seventeen digits are what JavaScript reads, to the last bit', () => {
    fc.assert(
      fc.property(decimal, (text) => {
        const words = new WordReader();
        const bytes = encoder.encode(`G1 X${text}`);
        words.read(bytes, 0, bytes.length);
        expect(words.value(88)).toBe(Number(text));
      }),
      { numRuns: 3000 },
    );
  });

  it('are read by the compiled loop up to fifteen digits, the others are left to the plain way', () => {
    fc.assert(
      fc.property(decimal, (text) => {
        const { hot, slow } = readBoth(text);
        const isShort = text.replace(/\D/g, '').length <= 15;
        // A way is the root of its square: it is the number itself where that neither overflows nor vanishes.
        if (!isShort) expect(hot).toBeNaN();
        else if (slow > 1e-9) expect(hot).toBe(slow);
      }),
      { numRuns: 300 },
    );
  });
});
