import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { crc32, deflateSync } from 'node:zlib';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { encoded } from '../../src/core/measures/image';

const folder = mkdtempSync(join(tmpdir(), 'vergleich-photo-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const S = 20;
const [WIDTH, HEIGHT] = [320, 192];

/** Luminance of a wall with layer lines of 0.25 mm and ringing of 1.6 mm from its left edge on. */
const wallAt = (column: number, row: number): number => {
  const [x, y] = [(column + 0.5) / S, (row + 0.5) / S];
  const wave = 0.04 * Math.exp(-x / 3) * Math.cos((2 * Math.PI * x) / 1.6);
  return 0.4 * (1 + 0.1 * Math.cos((2 * Math.PI * y) / 0.25)) * Math.exp(wave);
};

/** The wall's pixels, of 8 or 16 bits, with some channels. */
function wall(channels: number, levels: number): Uint8Array | Uint16Array {
  const Kind = levels > 256 ? Uint16Array : Uint8Array;
  const data = new Kind(WIDTH * HEIGHT * channels);
  for (let at = 0; at < WIDTH * HEIGHT; at += 1) {
    const value = Math.round((levels - 1) * encoded(wallAt(at % WIDTH, Math.floor(at / WIDTH))));
    data.fill(value, at * channels, (at + 1) * channels);
    // Transparency says nothing of how light a pixel is.
    if (channels === 4) data[at * 4 + 3] = at % 200;
  }
  return data;
}

const raw = (channels: 1 | 3 | 4, levels = 256) =>
  sharp(wall(channels, levels), { raw: { width: WIDTH, height: HEIGHT, channels } });

const at = (name: string) => join(folder, name);

function photo(
  name: string,
  measure: string,
  region = `0,0,${WIDTH},${HEIGHT}`,
  ...more: string[]
) {
  const { status, stdout, stderr } = spawnSync(
    process.execPath,
    [
      'bin/vergleich.mjs',
      'photo',
      at(name),
      '--measure',
      measure,
      '--region',
      region,
      '--px-per-mm',
      String(S),
      ...more,
    ],
    { encoding: 'utf8' },
  );
  return { status, stdout, stderr };
}

function measured(name: string, measure: string, region?: string, ...more: string[]) {
  const { status, stdout, stderr } = photo(name, measure, region, '--json', ...more);
  expect(stderr).toBe('');
  expect(status).toBe(0);
  return JSON.parse(stdout) as {
    width: number;
    height: number;
    values: Record<string, { estimate: number } & number>;
    notes: string[];
  };
}

beforeAll(async () => {
  await raw(1, 65_536).toColourspace('grey16').png().toFile(at('deep.png'));
  await raw(3).png().toFile(at('plain.png'));
  await raw(4).png().toFile(at('clear.png'));
  await raw(3).png({ palette: true, colours: 256 }).toFile(at('palette.png'));
  await raw(3).jpeg({ quality: 95 }).toFile(at('photo.jpg'));
  await raw(3).webp({ lossless: true }).toFile(at('photo.webp'));
  await raw(3)
    .rotate(270)
    .jpeg({ quality: 95 })
    .withMetadata({ orientation: 6 })
    .toFile(at('turned.jpg'));
  await raw(3).toColourspace('cmyk').jpeg({ quality: 95 }).toFile(at('cmyk.jpg'));
});

describe('a photo is measured', () => {
  it('of 16 bits to many digits', () => {
    const { values } = measured('deep.png', 'ringing', undefined, '--speed', '160');
    expect(values.found).toBe(true);
    expect(values.wavelength_mm?.estimate).toBeCloseTo(1.6, 4);
    expect(values.amplitude?.estimate).toBeCloseTo(0.04, 4);
    expect(values.frequency_hz).toBeCloseTo(100, 2);
    const lines = measured('deep.png', 'layer-lines', undefined, '--layer-height', '0.25');
    expect(lines.values.line_spacing_mm).toBeCloseTo(0.25, 5);
    expect(lines.values.line_contrast).toBeCloseTo(0.1, 4);
  });

  it.each(['plain.png', 'clear.png', 'palette.png', 'photo.webp', 'photo.jpg', 'turned.jpg'])(
    'whatever its form: %s',
    (name) => {
      const { values, width, height } = measured(name, 'layer-lines');
      expect([width, height]).toEqual([WIDTH, HEIGHT]);
      expect(values.line_spacing_mm).toBeCloseTo(0.25, 3);
      expect(values.line_contrast).toBeCloseTo(0.1, 2);
    },
  );

  it('of printing colours too, as far as they carry', () => {
    expect(measured('cmyk.jpg', 'layer-lines').values.line_spacing_mm).toBeCloseTo(0.25, 3);
  });

  it('a part of it is that part', () => {
    // From the seventh millimetre on the wave is below a tenth of what it was.
    const { values } = measured('deep.png', 'ringing', '140,0,180,192');
    expect(values.amplitude?.estimate ?? 0).toBeLessThan(0.005);
  });

  it('for people, in words', () => {
    const { stdout, status } = photo('plain.png', 'strings');
    expect(status).toBe(0);
    expect(stdout).toContain(`plain.png, ${WIDTH} × ${HEIGHT} px`);
    expect(stdout).toMatch(/coverage_share +0\n/);
  });
});

/** A PNG of a size with nothing behind its head. */
function hugePng(width: number, height: number): Buffer {
  const chunk = (type: string, data: Buffer) => {
    const body = Buffer.concat([Buffer.from(type), data]);
    const out = Buffer.alloc(body.length + 8);
    out.writeUInt32BE(data.length, 0);
    body.copy(out, 4);
    out.writeUInt32BE(crc32(body), body.length + 4);
    return out;
  };
  const head = Buffer.alloc(13);
  head.writeUInt32BE(width, 0);
  head.writeUInt32BE(height, 4);
  head.set([8, 2, 0, 0, 0], 8);
  const signature = Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]);
  return Buffer.concat([
    signature,
    chunk('IHDR', head),
    chunk('IDAT', deflateSync(Buffer.alloc(100))),
    chunk('IEND', Buffer.alloc(0)),
  ]);
}

describe('what is no picture, or a broken one', () => {
  const write = (name: string, content: string | Uint8Array) => {
    writeFileSync(at(name), content);
    return name;
  };
  const whyNot = (name: string, region = '0,0,20,20') => {
    const { status, stdout, stderr } = photo(name, 'texture', region);
    expect(stdout).toBe('');
    expect(status, stderr).toBe(1);
    expect(stderr).not.toContain('    at ');
    return stderr.trim();
  };

  it('is refused with the reason', async () => {
    const svg = '<svg xmlns="http://www.w3.org/2000/svg" width="40" height="40"></svg>';
    expect(whyNot(write('a.png', svg))).toBe('a.png: is no JPEG, PNG or WebP picture');
    expect(whyNot(write('a.gif', 'GIF89a'))).toContain('is no JPEG');
    expect(whyNot(write('a.jpg', ''))).toBe('a.jpg: is empty');
    expect(whyNot(write('a.heic', Buffer.from('\0\0\0\x18ftypheic0000', 'latin1')))).toContain(
      'export it as JPEG',
    );
    expect(whyNot('nowhere.png')).toBe('nowhere.png: there is no such file');
    expect(whyNot('.')).toContain('is not a file');
    const jpeg = await raw(3).jpeg().toBuffer();
    expect(whyNot(write('cut.jpg', jpeg.subarray(0, jpeg.length / 2)))).toContain('is broken');
    const hurt = Buffer.from(jpeg);
    hurt.fill(0xff, 2000, 2100);
    expect(whyNot(write('hurt.jpg', hurt), `0,0,${WIDTH},${HEIGHT}`)).toContain('is broken');
    expect(whyNot(write('head.png', hugePng(40, 40)))).toContain('is broken');
  });

  it('of too many pixels is refused at once', () => {
    const started = performance.now();
    expect(whyNot(write('huge.png', hugePng(60_000, 60_000)))).toBe(
      'huge.png: has more than 60 megapixels: make it smaller',
    );
    expect(performance.now() - started).toBeLessThan(5000);
  });

  it.each(['-1,0,20,20', '0,0,321,20', '300,0,21,20', '0,180,20,13', '0,0,0,20', '400,0,1,1'])(
    'a region %s is not within it',
    (region) => {
      expect(whyNot('plain.png', region)).toBe(
        `plain.png: the region ${region} is not within the picture, which is 320 × 192 pixels`,
      );
    },
  );

  it.each([['0'], ['-3'], ['1e-400']])('a scale of %s is none', (scale) => {
    const { status, stderr } = photo('plain.png', 'texture', '0,0,20,20', `--px-per-mm=${scale}`);
    expect(status).toBe(1);
    expect(stderr).toBe('--px-per-mm must be over 0\n');
  });

  it('wrong usage is told as such', () => {
    expect(photo('plain.png', 'beauty').status).toBe(2);
    expect(photo('plain.png', 'texture', '0,0,20').status).toBe(2);
    expect(photo('plain.png', 'texture', '0,0,20,20', '--layer-height', 'thin').status).toBe(2);
    expect(photo('plain.png', 'texture', '0,0,20,20', '--background', 'pink').status).toBe(2);
  });
});
