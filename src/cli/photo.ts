import { stat } from 'node:fs/promises';
import { basename } from 'node:path';
import { measurePhoto, type MeasureValue, type PhotoMeasure } from '../core/measures/image';
import { PictureError, readRegion, type PixelRegion } from '../files/photos/pictures';
import { InputError } from './input-error';

export interface PhotoFlags {
  measure: PhotoMeasure;
  region: PixelRegion;
  pxPerMm: number;
  layerHeight?: number;
  speed?: number;
  json?: boolean;
}

/** `vergleich photo`: a measure on a region of a photo, for people or as JSON. */
export async function runPhoto(path: string, flags: PhotoFlags): Promise<void> {
  const file = basename(path);
  const facts = await stat(path).catch(() => null);
  if (!facts) throw new InputError(`${file}: there is no such file`);
  if (!facts.isFile()) throw new InputError(`${file}: is not a file`);
  const { measure, region, pxPerMm: px_per_mm } = flags;
  const positive: [string, number | undefined][] = [
    ['--px-per-mm', px_per_mm],
    ['--layer-height', flags.layerHeight],
    ['--speed', flags.speed],
  ];
  for (const [flag, value] of positive) {
    if (value !== undefined && !(value > 0)) throw new InputError(`${flag} must be over 0`);
  }
  try {
    const { size, raster } = await readRegion(path, region);
    const { values, notes } = measurePhoto(measure, raster, {
      px_per_mm,
      layer_height_mm: flags.layerHeight ?? null,
      speed_mm_s: flags.speed ?? null,
    });
    const found = { file, ...size, px_per_mm, measure, region, values, notes };
    process.stdout.write(flags.json ? `${JSON.stringify(found)}\n` : renderPhoto(found));
  } catch (error) {
    if (error instanceof PictureError) throw new InputError(`${file}: ${error.message}`);
    throw error;
  }
}

interface MeasuredPhoto {
  file: string;
  width: number;
  height: number;
  measure: string;
  region: PixelRegion;
  values: Record<string, MeasureValue>;
  notes: string[];
}

const say = (value: MeasureValue): string => {
  if (value === null) return 'not known';
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (typeof value === 'number') return String(Number(value.toPrecision(5)));
  const [low, high] = [value.low, value.high];
  return `${say(value.estimate)}${low === null || high === null ? '' : `, ${say(low)} to ${say(high)}`}`;
};

function renderPhoto({ file, width, height, measure, region, values, notes }: MeasuredPhoto) {
  const lines = [
    `${file}, ${width} × ${height} px`,
    `  ${measure} in ${region.w} × ${region.h} px at ${region.x}, ${region.y}`,
    ...Object.entries(values).map(([key, value]) => `  ${key.padEnd(22)} ${say(value)}`),
    ...notes.map((note) => `  note  ${note}`),
  ];
  return `${lines.join('\n')}\n`;
}
