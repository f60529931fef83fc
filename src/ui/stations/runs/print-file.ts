import type { SlicedSummary } from '../../../contract/sliced-files';
import type { AnyPrint } from './runs-model';
import type { Value, Values } from '../../records/use-record';

const find = (files: readonly SlicedSummary[], path: Value | undefined) =>
  files.find((file) => file.path === path && file.state === 'read');

/** What a print's sliced file says before it is printed: how long it is to take. */
export function fromFile(files: readonly SlicedSummary[], path: Value | undefined): Values {
  const file = find(files, path);
  const estimate = file?.annotated_time_s ?? file?.time_s;
  return estimate == null ? {} : { estimate_s: Math.round(estimate) };
}

/** How much of a print was made, 0 to 1: all of one that was finished, else its progress; unknown: all. */
const shareOf = ({ outcome, progress_pct }: Values): number =>
  (outcome === 'failed' || outcome === 'aborted') && typeof progress_pct === 'number'
    ? progress_pct / 100
    : 1;

/**
 * What a print's sliced file says of its filament, where nobody has weighed it; of a print that was broken off, the
 * part of it that its progress tells.
 */
export function filamentOf(
  files: readonly SlicedSummary[],
  print: Pick<AnyPrint, 'toolpath' | 'filament_g' | 'filament_m'>,
  ending: Values = {},
): Values {
  const file = find(files, print.toolpath);
  if (!file) return {};
  const share = shareOf(ending);
  const { filament_g, filament_mm } = file;
  return {
    ...(print.filament_g === null &&
      filament_g !== null && {
        filament_g: Number((share * filament_g).toFixed(2)),
        filament_from: 'file',
      }),
    ...(print.filament_m === null &&
      filament_mm !== null && { filament_m: Number(((share * filament_mm) / 1000).toFixed(3)) }),
  };
}

/**
 * What follows from a value that is typed at a print's end, for the distance of a level and for
 * the filament: grams that are typed were weighed; as long as they are the file's, they follow the
 * print's progress.
 */
export function filamentFollows(
  files: readonly SlicedSummary[],
  print: Pick<AnyPrint, 'toolpath' | 'filament_g' | 'filament_m'>,
  name: string,
  values: Values,
): Values {
  // Levels are compared at 1 m: that is where it is taken to be read, until another distance is typed.
  if (name === 'noise_db' && values.noise_distance_m == null) return { noise_distance_m: 1 };
  if (name === 'filament_g') {
    return { filament_from: values.filament_g == null ? null : 'weighed' };
  }
  const isFollowed = name === 'outcome' || name === 'progress_pct';
  if (!isFollowed || values.filament_from === 'weighed') return {};
  return filamentOf(files, print, values);
}
