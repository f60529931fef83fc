import { ToolpathAnalysis } from '../src/core/toolpath';
import { drawsFrom } from '../demo/generator/random';

/** A sliced file of about so many bytes: short lines in many directions, retractions, layers. */
export function syntheticSlicedFile(bytes: number): Uint8Array {
  const draws = drawsFrom(7);
  const parts: string[] = ['; layer_height = 0.2\n; line_width = 0.45\nM82\nG28\nG1 F6000\n'];
  let written = 0;
  let [x, y, z, e] = [100, 100, 0.2, 0];
  while (written < bytes) {
    let text = '';
    if (draws.chance(0.02)) {
      x = draws.between(50, 150);
      y = draws.between(50, 150);
      text += `G1 E${(e - 0.8).toFixed(5)} F2400\nG0 X${x.toFixed(3)} Y${y.toFixed(3)} F12000\n`;
      text += `G1 E${e.toFixed(5)} F2400\n;TYPE:${draws.chance(0.5) ? 'inner-wall' : 'infill'}\n`;
      text += `G1 F${Math.round(draws.between(3000, 9000))}\n`;
    }
    if (draws.chance(0.001)) {
      z += 0.2;
      text += `;LAYER_CHANGE\nG1 Z${z.toFixed(3)} F600\n`;
    }
    const [dx, dy] = [draws.between(-2, 2), draws.between(-2, 2)];
    x += dx;
    y += dy;
    e += Math.hypot(dx, dy) * 0.0374;
    text += `G1 X${x.toFixed(3)} Y${y.toFixed(3)} E${e.toFixed(5)}\n`;
    parts.push(text);
    written += text.length;
  }
  return new TextEncoder().encode(parts.join(''));
}

const PIECE = 1024 * 1024;

/** Reads all of a file with the full motion model; returns MB/s. */
export function analysisRate(file: Uint8Array): number {
  const started = performance.now();
  const analysis = new ToolpathAnalysis({ file: 'bench' });
  for (let at = 0; at < file.length; at += PIECE) analysis.push(file.subarray(at, at + PIECE));
  analysis.end();
  return file.length / 1e3 / (performance.now() - started);
}

/** The yardstick: takes lines apart by text functions and models nothing; returns MB/s. */
export function plainReaderRate(file: Uint8Array): number {
  const started = performance.now();
  let way = 0;
  let [x, y] = [0, 0];
  const decoder = new TextDecoder();
  let rest = '';
  for (let at = 0; at < file.length; at += PIECE) {
    const lines = (rest + decoder.decode(file.subarray(at, at + PIECE), { stream: true })).split(
      '\n',
    );
    rest = lines.pop() ?? '';
    for (const line of lines) {
      const words = line.split(';')[0]?.trim().split(/\s+/) ?? [];
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
  if (!(way > 0)) throw new Error('the yardstick read nothing');
  return file.length / 1e3 / (performance.now() - started);
}
