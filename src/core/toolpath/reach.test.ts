import { describe, expect, it } from 'vitest';
import { reachOf, ToolpathAnalysis, type MachineRecord, type ToolpathFacts } from '.';
import { holdBack } from './claim';

const MACHINE: MachineRecord = { claimed_speed_mm_s: 100, max_flow_mm3_s: 5 };

/** The facts of a real file, with what a test is about put in its place. */
function facts(
  text: string,
  {
    reached_s,
    share,
    settings,
    machine = MACHINE,
    height,
    top = {},
  }: {
    reached_s: number[];
    share?: number;
    settings?: ToolpathFacts['settings'];
    machine?: MachineRecord;
    height?: number;
    top?: Partial<ToolpathFacts['speed']>;
  },
): ToolpathFacts {
  const analysis = new ToolpathAnalysis({ file: 't.gcode', machine });
  analysis.push(new TextEncoder().encode(text));
  const found = analysis.end();
  return {
    ...found,
    settings: settings ?? found.settings,
    layer_heights_mm: { ...found.layer_heights_mm, median: height ?? null },
    speed: { ...found.speed, ...top, histogram: { ...found.speed.histogram, reached_s } },
    claim: found.claim && { ...found.claim, share_within_5pct: share ?? null },
  };
}

const MOVE = 'G1 X10 F6000\nG1 X20 E1';

describe('claim, command and reach of several files', () => {
  it('adds up the time at each speed and keeps the highest of what is asked for and reached', () => {
    const reach = reachOf(
      [
        facts(MOVE, {
          reached_s: [1, 2],
          top: { commanded_max: 90, reached_max: 60 },
        }),
        facts(MOVE, {
          reached_s: [0, 3, 4],
          top: { commanded_max: 120, reached_max: null },
        }),
      ],
      {},
    );
    expect(reach).toMatchObject({
      files: 2,
      commanded_max: 120,
      reached_max: 60,
      reached_s: [1, 5, 4],
      claim: null,
    });
  });

  it('speeds below which 5, 50 and 95 % of the time lie, read within their bin', () => {
    // 10 s evenly in 0…10, 10 s in 20…30: half the time is below 10; 5 % is 1 s of 10 within the
    // first bin, 95 % is 9 s of 10 within the last.
    const { reached } = reachOf([facts(MOVE, { reached_s: [10, 0, 10] })], {});
    expect(reached?.p5).toBeCloseTo(1, 12);
    expect(reached?.p50).toBeCloseTo(10, 12);
    expect(reached?.p95).toBeCloseTo(29, 12);
  });

  it('knows nothing of no files, nor of files that lay no material', () => {
    expect(reachOf([], MACHINE)).toMatchObject({
      files: 0,
      commanded_max: null,
      reached_max: null,
      reached: null,
      flow_limited_mm_s: null,
      claim: { claimed: 100, share_within_5pct: null, held_back_by: 'file' },
    });
    expect(reachOf([facts(MOVE, { reached_s: [0, 0] })], {}).reached).toBeNull();
  });

  it('the speed at which the flow limit is used up is it over width times height', () => {
    const settings = { line_width_mm: 0.5, layer_height_mm: 0.2 };
    const reach = reachOf([facts(MOVE, { reached_s: [1], settings })], MACHINE);
    expect(reach.flow_limited_mm_s).toBeCloseTo(50, 12);
    expect(reach.claim?.flow_needed_mm3_s).toBeCloseTo(10, 12);
    expect(reach.claim?.flow_limit_mm3_s).toBe(5);
  });

  it('takes the height of the layers where none is stated, and says where no width is', () => {
    const measured = facts(MOVE, {
      reached_s: [1],
      settings: { line_width_mm: 0.5 },
      height: 0.25,
    });
    expect(reachOf([measured], MACHINE).flow_limited_mm_s).toBeCloseTo(40, 12);
    const unknown = reachOf([facts(MOVE, { reached_s: [1], settings: {} })], MACHINE);
    expect(unknown.flow_limited_mm_s).toBeNull();
    expect(unknown.claim?.notes).toEqual(['line width not known: no flow']);
    expect(reachOf([measured], { claimed_speed_mm_s: 100 }).flow_limited_mm_s).toBeNull();
  });

  it('the share near the claim is over the extruding time of the files with that claim', () => {
    // 10 s with half of it near the claim, 30 s with nothing: 5 of 40 s.
    const own = [
      facts(MOVE, { reached_s: [10], share: 0.5 }),
      facts(MOVE, { reached_s: [20, 10], share: 0 }),
    ];
    const other = facts(MOVE, {
      reached_s: [100],
      share: 1,
      machine: { claimed_speed_mm_s: 300 },
    });
    expect(reachOf([...own, other], MACHINE).claim?.share_within_5pct).toBeCloseTo(0.125, 12);
  });
});

describe('what holds a machine back', () => {
  const flow = { flow_needed_mm3_s: null, flow_limit_mm3_s: null };

  it.each([
    ['the file, where it asks for less', 94, 94, flow, 'file'],
    ['the file, where it lays nothing', null, null, flow, 'file'],
    ['acceleration, where it is asked for and not reached', 100, 94, flow, 'acceleration'],
    ['nothing, within 5 % of it', 95, 95, flow, null],
    [
      'the flow, where all is reached but the hotend gives less',
      100,
      100,
      { flow_needed_mm3_s: 10, flow_limit_mm3_s: 9 },
      'flow',
    ],
    ['nothing, at the very limit', 100, 100, { flow_needed_mm3_s: 9, flow_limit_mm3_s: 9 }, null],
    [
      'the file first, whatever the flow',
      50,
      50,
      { flow_needed_mm3_s: 10, flow_limit_mm3_s: 1 },
      'file',
    ],
  ] as const)('%s', (_, commanded_max, reached_max, needs, expected) => {
    expect(holdBack(100, { commanded_max, reached_max }, needs)).toBe(expected);
  });
});
