import { describe, expect, it } from 'vitest';
import type { ToolpathFacts } from '../../core/toolpath';
import { flowChart, layerChart, speedChart } from './file-charts';

const facts = (more: object) => more as ToolpathFacts;
const layers = (time_by_layer_s: number[], layer_tops_mm: (number | null)[]) =>
  layerChart(
    facts({ time_by_layer_s, layer_tops_mm, flow_by_layer_mm3_s: time_by_layer_s.map(() => 5) }),
  );

describe('the chart of speeds', () => {
  const speed = (more: object) =>
    speedChart(
      facts({
        speed: {
          commanded_max: 200,
          reached_p50: 84.6,
          at_commanded_share: 0.31,
          histogram: { bin_mm_s: 50, commanded_s: [0, 60, 0, 120], reached_s: [120, 60] },
          ...more,
        },
      }),
    );

  it('says what is asked for and how much of the time that is reached', () => {
    expect(speed({}).sentence).toBe(
      'Up to 200 mm/s is asked for. Half of the extruding time passes at 85 mm/s or less. The speed ' +
        'asked for is reached in 31\u00a0% of the time.',
    );
    expect(speed({ commanded_max: null }).sentence).toBe('Nothing is extruded in the plane.');
  });

  it('has both in minutes over the same speeds, down to nothing at the end', () => {
    const [asked, reached] = speed({}).series;
    expect(asked?.points).toEqual([
      [0, 0],
      [50, 1],
      [100, 0],
      [150, 2],
      [200, 0],
    ]);
    expect(reached?.points).toEqual([
      [0, 2],
      [50, 1],
      [100, 0],
      [150, 0],
      [200, 0],
    ]);
  });
});

describe('the chart of flows', () => {
  const flow = (limit: number | null, more: object = {}) =>
    flowChart(
      facts({
        flow: {
          reached_max: 27.31,
          reached_p95: 18,
          histogram: { bin_mm3_s: 10, reached_s: [600, 90, 30] },
          ...more,
        },
      }),
      limit,
    );

  it('says for how long the machine’s limit is passed', () => {
    expect(flow(20).sentence).toBe(
      'Up to 27.3 mm³/s, 95 % of the time at most 18.0. Above the machine’s limit of 20.0 mm³/s for 0:30.',
    );
    expect(flow(10).sentence).toContain('for 2:00.');
    expect(flow(40).sentence).toContain('for 0:00.');
  });

  it('says what is not known', () => {
    expect(flow(null, { reached_max: null }).sentence).toBe(
      'Nothing is extruded. The flow limit of the machine is not known.',
    );
  });

  it('has each flow in the middle of its bin', () => {
    expect(flow(null).series[0]?.points).toEqual([
      [5, 10],
      [15, 1.5],
      [25, 0.5],
    ]);
  });
});

describe('the chart over the height', () => {
  it('names the longest and the shortest layer by their heights', () => {
    const { sentence, series } = layers([100, 40, 75], [0.2, 0.4, 0.6]);
    expect(sentence).toBe(
      '3 layers; the longest takes 1:40 at 0.20 mm, the shortest 0:40 at 0.40 mm.',
    );
    expect(series.map(({ points }) => points)).toEqual([
      [
        [0.2, 100],
        [0.4, 40],
        [0.6, 75],
      ],
      [
        [0.2, 5],
        [0.4, 5],
        [0.6, 5],
      ],
    ]);
  });

  it('has no place for a layer whose height is not known', () => {
    const { sentence, series } = layers([100, 1, 75], [0.2, null, 0.4]);
    expect(sentence).toBe(
      '3 layers; the longest takes 1:40 at 0.20 mm, the shortest 1:15 at 0.40 mm.',
    );
    expect(series[0]?.points).toEqual([
      [0.2, 100],
      [0.4, 75],
    ]);
  });

  it('says where no layer is told apart, or none has a height', () => {
    expect(layers([], []).sentence).toBe('This file has no layers that can be recognised.');
    expect(layers([9], [null]).sentence).toBe('1 layer, none of a known height.');
    expect(layers([9], []).series[0]?.points).toEqual([]);
  });
});
