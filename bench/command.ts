import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { median, type Line } from './line';
import { syntheticSlicedFile } from './toolpath';

const BYTES = 40e6;
const TIMES = 5;

interface Usage {
  /** Of the whole process: its start, user and system time. */
  cpu_s: number;
  wall_s: number;
  peak_mb: number;
}

/** Runs a script as a process of its own, some times; returns the medians of what it took. */
function measured(folder: string, args: readonly string[]): Usage {
  const to = join(folder, 'usage.json');
  const runs = Array.from({ length: TIMES }, (): Usage => {
    const started = performance.now();
    const { status, stderr } = spawnSync(
      process.execPath,
      ['--import', pathToFileURL(join('bench', 'usage.mjs')).href, ...args],
      { env: { ...process.env, USAGE_TO: to }, maxBuffer: 1 << 28, encoding: 'utf8' },
    );
    if (status !== 0) throw new Error(`${args.join(' ')}: ${stderr}`);
    const wall_s = (performance.now() - started) / 1000;
    return { ...(JSON.parse(readFileSync(to, 'utf8')) as Omit<Usage, 'wall_s'>), wall_s };
  });
  const of = (key: keyof Usage) => median(runs.map((run) => run[key]));
  return { cpu_s: of('cpu_s'), wall_s: of('wall_s'), peak_mb: of('peak_mb') };
}

const isMove = (line: string) => line.startsWith('G0') || line.startsWith('G1');
const checksum = (text: string) => {
  let sum = 0;
  for (let at = 0; at < text.length; at += 1) sum ^= text.charCodeAt(at);
  return sum;
};

/** The same moves written otherwise, about as many bytes of each. */
const KINDS: Record<string, (line: string, at: number) => string> = {
  'blanks between words': (line) => line,
  'numbered, with checksums': (line, at) => {
    if (line === '' || line.startsWith(';')) return line;
    const whole = `N${at + 1} ${line}`;
    return `${whole}*${checksum(whole)}`;
  },
  'no blanks': (line) => (isMove(line) ? line.replaceAll(' ', '') : line),
  'a comment on every line': (line) => (isMove(line) ? `${line} ; perimeter` : line),
  // A short arc bulges from the way that the line would have gone.
  arcs: (line, at) =>
    /^G1 X\S+ Y\S+ E/.test(line) ? line.replace('G1', at % 2 === 0 ? 'G2' : 'G3') + ' R40' : line,
};

/** The yardstick as a program: takes lines apart by text functions, and models nothing. */
const PLAIN_READER = `
import { createReadStream } from 'node:fs';
let [x, y, way, rest] = [0, 0, 0, ''];
for await (const piece of createReadStream(process.argv[2], { highWaterMark: 1 << 20, encoding: 'utf8' })) {
  const lines = (rest + piece).split('\\n');
  rest = lines.pop();
  for (const line of lines) {
    const words = line.split(';')[0].trim().split(/\\s+/);
    if (words[0] !== 'G1' && words[0] !== 'G0') continue;
    let [nx, ny] = [x, y];
    for (const word of words.slice(1)) {
      if (word.startsWith('X')) nx = Number.parseFloat(word.slice(1));
      if (word.startsWith('Y')) ny = Number.parseFloat(word.slice(1));
    }
    way += Math.hypot(nx - x, ny - y);
    [x, y] = [nx, ny];
  }
}
if (!(way > 0)) process.exit(1);
`;

/** A closed surface of a million triangles as a binary STL: a ball with a wavy belt. */
function syntheticMesh(): Buffer {
  const [around, along] = [708, 708];
  const place = (i: number, j: number): number[] => {
    const [u, v] = [(2 * Math.PI * (i % around)) / around, (Math.PI * j) / along];
    // All of a pole is one place.
    const belt = j % along === 0 ? 0 : (40 + 3 * Math.sin(7 * u) * Math.sin(v)) * Math.sin(v);
    return [belt * Math.cos(u), belt * Math.sin(u), 40 * Math.cos(v)];
  };
  const triangles = 2 * around * (along - 1);
  const bytes = Buffer.alloc(84 + 50 * triangles);
  bytes.writeUInt32LE(triangles, 80);
  let at = 84;
  const put = (...corners: number[][]) => {
    for (const [n, value] of corners.flat().entries()) bytes.writeFloatLE(value, at + 12 + 4 * n);
    at += 50;
  };
  for (let j = 0; j < along; j += 1) {
    for (let i = 0; i < around; i += 1) {
      const [a, b] = [place(i, j), place(i + 1, j)];
      const [c, d] = [place(i, j + 1), place(i + 1, j + 1)];
      if (j > 0) put(a, c, b);
      if (j < along - 1) put(b, c, d);
    }
  }
  return bytes;
}

/** The whole command on files of 40 MB, beside a plain reader's in the same run, by processor time. */
export function benchCommand(): Line[] {
  const folder = mkdtempSync(join(tmpdir(), 'vergleich-bench-'));
  try {
    const file = join(folder, 'part.gcode');
    const reader = join(folder, 'plain-reader.mjs');
    writeFileSync(reader, PLAIN_READER);
    const text = new TextDecoder().decode(syntheticSlicedFile(BYTES));
    writeFileSync(file, text);
    const yardstick = measured(folder, [reader, file]);
    const lines: Line[] = [
      {
        what: 'plain line reader of 40 MB as a process, the yardstick',
        figure: `${yardstick.cpu_s.toFixed(2)} s CPU`,
        bar: '',
        isMet: true,
      },
    ];
    let plain: Usage | null = null;
    for (const [kind, write] of Object.entries(KINDS)) {
      writeFileSync(file, text.split('\n').map(write).join('\n').slice(0, BYTES));
      const usage = measured(folder, ['bin/vergleich.mjs', 'toolpath', file, '--json']);
      const ratio = plain === null ? usage.cpu_s / yardstick.cpu_s : usage.cpu_s / plain.cpu_s;
      const rate = BYTES / 1e6 / usage.wall_s;
      lines.push({
        what:
          `vergleich toolpath, 40 MB, ${kind}: ${usage.cpu_s.toFixed(2)} s CPU, ${rate.toFixed(0)} ` +
          `MB/s, ${usage.peak_mb.toFixed(0)} MB at most`,
        figure: `${ratio.toFixed(2)} ×`,
        bar: plain === null ? '≤ 0.5 of it' : '≤ 2 of plain',
        isMet: ratio <= (plain === null ? 0.5 : 2) && usage.peak_mb < 120,
      });
      plain ??= usage;
    }
    const mesh = join(folder, 'part.stl');
    writeFileSync(mesh, syntheticMesh());
    const usage = measured(folder, ['bin/vergleich.mjs', 'mesh', mesh, '--json']);
    lines.push({
      what: `vergleich mesh, 1 M triangles: ${usage.cpu_s.toFixed(2)} s CPU, ${usage.peak_mb.toFixed(0)} MB at most`,
      figure: `${(usage.cpu_s / yardstick.cpu_s).toFixed(2)} ×`,
      bar: '≤ 0.65 of it',
      isMet: usage.cpu_s <= 0.65 * yardstick.cpu_s && usage.peak_mb <= 200,
    });
    return lines;
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}
