import { describe, expect, it } from 'vitest';
import { smallStudy } from '../../../tests/support/small-study';
import { guessPurpose, machineOf } from '.';

const { tables } = smallStudy({
  machines: [
    { machine_id: 'auklet', name: 'Auklet 19', claimed_speed_mm_s: 250, max_flow_mm3_s: 12 },
    { machine_id: 'gannet', name: 'Gannet X24' },
  ],
  profiles: [
    { profile_id: 'a-stock', name: 'Maker 0.2', kind: 'stock' },
    { profile_id: 'a-tuned', name: 'Bench 0.2', kind: 'tuned', parent_id: 'a-stock' },
    { profile_id: 'g-stock', name: 'Maker 0.2', kind: 'stock' },
  ],
  profile_settings: [
    { profile_id: 'a-stock', key: 'walls', value: '2' },
    { profile_id: 'a-stock', key: 'outer wall speed', value: '120' },
    { profile_id: 'a-tuned', key: 'walls', value: '3' },
    { profile_id: 'a-tuned', key: 'outer wall speed', value: '80' },
  ],
  contenders: [
    { contender_id: 'A-stock', label: 'A', machine_id: 'auklet', profile_id: 'a-stock' },
    { contender_id: 'A-tuned', label: 'A tuned', machine_id: 'auklet', profile_id: 'a-tuned' },
    { contender_id: 'B-stock', label: 'B', machine_id: 'gannet', profile_id: 'g-stock' },
  ],
  artefacts: [
    { artefact_id: 'stair-block', name: 'Stair block' },
    { artefact_id: 'ring-stack', name: 'Ring stack' },
  ],
});

const guess = (file: string, settings = {}) => guessPurpose(file, settings, tables);

describe('what a sliced file is for', () => {
  it.each([
    ['sliced/stair-block-A-tuned.gcode', 'A-tuned', 'stair-block'],
    ['RING STACK gannet x24.gcode.gz', 'B-stock', 'ring-stack'],
    ['Auklet_23_tuned_ring_stack.gcode', 'A-tuned', 'ring-stack'],
    ['stair_block.gcode', null, 'stair-block'],
    // Words that run together, or are cut off, are known by the longest common part.
    ['stairblock_gannetx24_final.gcode', 'B-stock', 'stair-block'],
    ['ringstac-v3.gcode', null, 'ring-stack'],
    // Another number is another machine.
    ['gannetx26.gcode', null, null],
    ['cube.gcode', null, null],
    // Both are named: it is neither.
    ['ring-stack-and-stair-block.gcode', null, null],
    // The name of a machine with two profiles does not say which.
    ['auklet 23 ring stack.gcode', null, 'ring-stack'],
  ])('%s', (file, contender_id, artefact_id) => {
    expect(guess(file)).toEqual({ contender_id, artefact_id });
  });

  it('settings that agree with one profile alone decide between those of a machine', () => {
    const file = 'auklet 23 ring stack.gcode';
    const told = (walls: number, speed: number) =>
      guess(file, { walls, speed_outer_wall_mm_s: speed }).contender_id;
    expect(told(2, 120)).toBe('A-stock');
    expect(told(3, 80)).toBe('A-tuned');
    expect(told(2, 80)).toBeNull();
  });

  it('what the file says of its machine counts as its name does', () => {
    expect(guess('plate_1.gcode', { printer: 'Gannet X24', object: 'Stair block' })).toEqual({
      contender_id: 'B-stock',
      artefact_id: 'stair-block',
    });
  });

  it('the ending of the file is no word of its name', () => {
    const lineUp = {
      ...tables,
      artefacts: [{ ...tables.artefacts[0]!, name: 'G', artefact_id: 'g' }],
    };
    expect(guessPurpose('plate.g', {}, lineUp).artefact_id).toBeNull();
    expect(guessPurpose('g plate.g', {}, lineUp).artefact_id).toBe('g');
  });
});

describe('what is known of a contender’s machine', () => {
  it('its claim and its flow, or nothing', () => {
    expect(machineOf('A-tuned', tables)).toEqual({ claimed_speed_mm_s: 250, max_flow_mm3_s: 12 });
    expect(machineOf('B-stock', tables)).toEqual({});
    expect(machineOf(null, tables)).toEqual({});
    expect(machineOf('nobody', tables)).toEqual({});
  });
});
