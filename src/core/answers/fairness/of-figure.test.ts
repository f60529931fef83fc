import { describe, expect, it } from 'vitest';
import { foundOn, unequalTo, worstFound, type FoundOnArtefact } from '.';

const found: FoundOnArtefact[] = [
  { contender: 'B', artefact_id: 'wall', result: 'confounded' },
  { contender: 'B', artefact_id: 'block', result: 'clean' },
  { contender: 'C', artefact_id: 'block', result: 'noted' },
];

describe('the mark beside a figure', () => {
  it('is of the artefacts that the figure rests on', () => {
    expect(worstFound(foundOn(found, 'B', ['block/PLA']))?.result).toBe('clean');
    expect(worstFound(foundOn(found, 'B', ['block/PLA', 'wall/PETG']))?.result).toBe('confounded');
    expect(worstFound(foundOn(found, 'C', ['wall']))).toBeNull();
  });

  it('is of all of them where the figure rests on all', () => {
    expect(worstFound(foundOn(found, 'B', []))?.result).toBe('confounded');
  });
});

describe('planned files', () => {
  it('name the contenders whose files state something else than the reference’s', () => {
    const value = (contender_id: string, own: number | null) => ({
      contender_id,
      toolpath: `${contender_id}.gcode`,
      value: own,
    });
    const walls = { artefact_id: 'block', key: 'walls' };
    const differences = [
      { ...walls, values: [value('A', 2), value('B', 3), value('C', null), value('D', 2)] },
    ];
    expect(unequalTo('A', differences)).toEqual(['B']);
    expect(unequalTo('C', differences)).toEqual([]);
    expect(unequalTo(null, differences)).toEqual([]);
  });
});
