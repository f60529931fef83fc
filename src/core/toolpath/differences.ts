import type { ToolpathFacts } from './facts';
import { PART_SETTINGS, type SettingValue } from '../model/study';

/** Something in which sliced files differ, and whether it must be held in a comparison. */
export interface ToolpathDifference {
  key: string;
  values: (SettingValue | null)[];
  weight: 'held' | 'noted';
}

/** What makes the part: where it differs, two prints of it are not the same part. */
const HELD = new Set<string>([...PART_SETTINGS, 'nozzle_mm', 'layers', 'median_layer_height_mm']);

const round = (value: number, digits: number): number => Number(value.toFixed(digits));

/** Facts of motion that two files can be compared by. */
function motionOf(facts: ToolpathFacts): Record<string, SettingValue | null> {
  const { layer_heights_mm: heights, bbox_mm: box } = facts;
  return {
    layers: facts.layers,
    median_layer_height_mm: heights.median === null ? null : round(heights.median, 4),
    time_s: round(facts.time_s, 3),
    filament_mm: round(facts.filament_mm, 3),
    retractions: facts.retractions,
    tool_changes: facts.tool_changes,
    commanded_max_mm_s: facts.speed.commanded_max,
    accelerations_seen: facts.accelerations_seen.join(' '),
    nozzle_c: facts.temperatures.nozzle_c.join(' '),
    bed_c: facts.temperatures.bed_c.join(' '),
    fan_max_share: facts.fan_max_share,
    box_size_mm: box
      ? box.max.map((high, at) => round(high - (box.min[at] ?? 0), 3)).join(' ')
      : null,
  };
}

/** In what two or more sliced files differ, what must be held first. */
export function differencesOf(files: readonly ToolpathFacts[]): ToolpathDifference[] {
  const all = files.map((facts): Record<string, SettingValue | null> => ({
    ...motionOf(facts),
    ...facts.settings,
  }));
  const keys = [...new Set(all.flatMap((one) => Object.keys(one)))].sort();
  const rows = keys.flatMap((key): ToolpathDifference[] => {
    const values = all.map((one) => one[key] ?? null);
    if (new Set(values).size === 1) return [];
    return [{ key, values, weight: HELD.has(key) ? 'held' : 'noted' }];
  });
  return [
    ...rows.filter((row) => row.weight === 'held'),
    ...rows.filter((row) => row.weight === 'noted'),
  ];
}
