import { ALLOWANCE } from '../../model/study';
import type { GaugeStudy } from '../../measures/gauge';

const mm = (value: number): string => value.toFixed(3);
const ENOUGH_CATEGORIES = 5;
const GOOD_PCT = 10;
const BEARABLE_PCT = 30;

/**
 * Readings of each of two parts, by the same hands, that tell apart parts which differ by `delta`:
 * twice the standard deviation of the difference of two means of n readings is at most delta,
 * `n ≥ 8·EV²/δ²`.
 */
export function readingsFor({ ev_mm }: Pick<GaugeStudy, 'ev_mm'>, delta_mm: number): number {
  return Math.max(1, Math.ceil((8 * ev_mm * ev_mm) / (delta_mm * delta_mm) - ALLOWANCE));
}

/**
 * What a gauge study means for what is to be told apart, in sentences.
 *
 * @param delta_mm the smallest difference of interest, mm; null where none is stated
 * @see Automotive Industry Action Group, Measurement Systems Analysis, 4th edition, 2010, chapter
 * II.D (10 % and 30 %, five categories)
 */
export function describeGauge(study: GaugeStudy, delta_mm: number | null): string[] {
  const { grr_pct, ndc, ev_mm, av_mm } = study;
  const said: string[] = [];
  if (grr_pct !== null) {
    const worth =
      grr_pct < GOOD_PCT
        ? 'good enough'
        : grr_pct <= BEARABLE_PCT
          ? 'usable, with several readings'
          : 'not good enough for these parts';
    said.push(
      `${grr_pct.toFixed(0)} % of the variation comes from the instrument and the operators: ${worth}.`,
    );
  }
  if (ndc !== null) {
    said.push(
      `${ndc} different sizes can be recognised among these ` +
        `parts${ndc < ENOUGH_CATEGORIES ? `, fewer than the ${ENOUGH_CATEGORIES} that are wanted` : ''}.`,
    );
  }
  if (delta_mm !== null) {
    const n = readingsFor(study, delta_mm);
    said.push(
      n === 1
        ? `With one operator, one reading of each of two parts can show a difference of ${delta_mm} mm, the ` +
            'smallest difference that matters here.'
        : `With one operator it takes ${n} readings of each of two parts to show a difference of ${delta_mm} ` +
            'mm, the smallest difference that matters here.',
    );
  }
  said.push(
    av_mm > ev_mm
      ? `The operators differ more (${mm(av_mm)} mm) than one operator repeats (${mm(ev_mm)} mm): let one ` +
          'person measure a comparison.'
      : `One operator repeats to ${mm(ev_mm)} mm, operators differ by ${mm(av_mm)} mm.`,
  );
  return said;
}
