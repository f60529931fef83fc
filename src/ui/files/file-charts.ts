import type { ToolpathFacts } from '../../core/toolpath';
import { counted, duration, fixed, percent } from '../lib/format';
import type { Series } from '../charts/Chart';

/** What the chart of speeds shows: time at each speed, asked for and reached. */
export function speedChart(facts: ToolpathFacts): { sentence: string; series: Series[] } {
  const { bin_mm_s: bin, commanded_s, reached_s } = facts.speed.histogram;
  const points = (seconds: readonly number[]) =>
    Array.from(
      { length: Math.max(commanded_s.length, reached_s.length) + 1 },
      (_, at) => [bin * at, (seconds[at] ?? 0) / 60] as const,
    );
  const { commanded_max, reached_p50, at_commanded_share } = facts.speed;
  return {
    sentence:
      commanded_max === null || reached_p50 === null || at_commanded_share === null
        ? 'Nothing is extruded in the plane.'
        : `Up to ${fixed(commanded_max, 0)} mm/s is asked for. Half of the extruding time passes at ` +
          `${fixed(reached_p50, 0)} mm/s or less. The speed asked for is reached in ` +
          `${percent(at_commanded_share)} of the time.`,
    series: [
      { name: 'asked for', colour: 'quiet', dashed: true, points: points(commanded_s) },
      { name: 'reached', colour: 'plum', points: points(reached_s) },
    ],
  };
}

/** What the chart of flows shows, against the limit of the machine. */
export function flowChart(
  facts: ToolpathFacts,
  limit: number | null,
): { sentence: string; series: Series[] } {
  const { bin_mm3_s: bin, reached_s } = facts.flow.histogram;
  const over =
    limit === null
      ? null
      : reached_s.reduce((sum, time, at) => (at * bin >= limit ? sum + time : sum), 0);
  const { reached_max, reached_p95 } = facts.flow;
  const said =
    reached_max === null || reached_p95 === null
      ? 'Nothing is extruded.'
      : `Up to ${fixed(reached_max, 1)} mm³/s, 95 % of the time at most ${fixed(reached_p95, 1)}.`;
  const against =
    limit === null
      ? ' The flow limit of the machine is not known.'
      : ` Above the machine’s limit of ${fixed(limit, 1)} mm³/s for ${duration(over ?? 0)}.`;
  return {
    sentence: said + against,
    series: [
      {
        name: 'reached',
        colour: 'plum',
        points: reached_s.map((seconds, at) => [bin * (at + 0.5), seconds / 60] as const),
      },
    ],
  };
}

/** What the chart over the height shows: time and flow of each layer whose height is known. */
export function layerChart(facts: ToolpathFacts): { sentence: string; series: Series[] } {
  const times = facts.time_by_layer_s;
  const layers = times.flatMap((time, index) => {
    const top = facts.layer_tops_mm[index] ?? null;
    return top === null ? [] : [{ top, time, flow: facts.flow_by_layer_mm3_s[index] ?? null }];
  });
  return {
    sentence: describeLayers(times.length, layers),
    series: [
      {
        name: 'time',
        colour: 'plum',
        points: layers.map(({ top, time }) => [top, time] as const),
      },
      {
        name: 'mean flow',
        colour: 'small',
        isSecond: true,
        dashed: true,
        points: layers.map(({ top, flow }) => [top, flow] as const),
      },
    ],
  };
}

interface Layer {
  top: number;
  time: number;
}

function describeLayers(count: number, layers: readonly Layer[]): string {
  if (count === 0) return 'This file has no layers that can be recognised.';
  const [first] = layers;
  const many = counted(count, 'layer');
  if (!first) return `${many}, none of a known height.`;
  const slowest = layers.reduce((best, one) => (one.time > best.time ? one : best), first);
  const quickest = layers.reduce((best, one) => (one.time < best.time ? one : best), first);
  return (
    `${many}; the longest takes ${duration(slowest.time)} at ${fixed(slowest.top, 2)} mm, the ` +
    `shortest ${duration(quickest.time)} at ${fixed(quickest.top, 2)} mm.`
  );
}
