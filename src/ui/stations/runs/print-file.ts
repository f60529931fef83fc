import type { SlicedSummary } from '../../../data';
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

/** What a print's sliced file says of its filament, where nobody has weighed it. */
export function filamentOf(files: readonly SlicedSummary[], print: AnyPrint): Values {
  const file = find(files, print.toolpath);
  if (!file) return {};
  return {
    ...(print.filament_g === null &&
      file.filament_g !== null && { filament_g: Number(file.filament_g.toFixed(2)) }),
    ...(print.filament_m === null &&
      file.filament_mm !== null && { filament_m: Number((file.filament_mm / 1000).toFixed(3)) }),
  };
}
