import type { ShownMeasure } from '../../contract/photos';
import { fixed } from '../lib/format';

const hundredths = (value: number): string => fixed(100 * value, 2);

/** A figure of a measure in words, with its interval or why there is none. */
export function describeMeasure({
  measure,
  feature,
  value,
  low,
  high,
  found,
  values,
}: ShownMeasure): string {
  const along = feature === null ? '' : ` along ${feature}`;
  const of = (key: string) => values.find((one) => one.key === key)?.value ?? null;
  const between =
    low === null || high === null ? '' : ` (${hundredths(low)} to ${hundredths(high)})`;
  if (measure === 'ringing') {
    const limit = of('detectable_amplitude');
    if (found !== 'true') {
      return limit === null
        ? `ringing${along}: cannot be measured here`
        : `no ringing${along} above the noise; over ${hundredths(limit)} % it would be`;
    }
    const [length, hertz, waves] = [of('wavelength_mm'), of('frequency_hz'), of('waves')];
    return [
      `ringing${along} ${value === null ? '' : hundredths(value)} %${between}`,
      length === null ? null : `wave ${fixed(length, 2)} mm`,
      hertz === null ? null : `${fixed(hertz, 0)} Hz`,
      waves === null ? null : `${fixed(waves, 1)} waves`,
    ]
      .filter((one) => one !== null)
      .join(' · ');
  }
  if (value === null) return `${NAMES[measure]}${along}: not resolved here`;
  return `${NAMES[measure]}${along} ${hundredths(value)} %${between}`;
}

const NAMES = {
  ringing: 'ringing',
  'layer-lines': 'bands of layers, contrast',
  strings: 'strings, area',
  gaps: 'gaps, area',
  texture: 'texture, contrast',
} as const;
