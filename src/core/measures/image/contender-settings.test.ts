import { expect, it } from 'vitest';
import { smallStudy, TWO_SIDES } from '../../../../tests/support/small-study';
import { contenderSettings } from '.';

it('is what each contender’s profile says of layers and outer walls, where it is a measure', () => {
  const { tables } = smallStudy({
    ...TWO_SIDES,
    profiles: [
      { profile_id: 'p', name: 'Stock', kind: 'stock' },
      { profile_id: 'q', name: 'Ours', kind: 'tuned', parent_id: 'p' },
    ],
    contenders: [
      { contender_id: 'R', label: 'R', machine_id: 'mr', profile_id: 'p' },
      { contender_id: 'C', label: 'C', machine_id: 'mc', profile_id: 'q' },
    ],
    profile_settings: [
      { profile_id: 'p', key: 'layer_height_mm', value: '0.2' },
      { profile_id: 'p', key: 'speed_outer_wall_mm_s', value: '120' },
      // Of the inner wall, in words, and of nothing: none of these is the outer wall's speed or a height.
      { profile_id: 'q', key: 'speed_inner_wall_mm_s', value: '200' },
      { profile_id: 'q', key: 'speed_outer_wall_mm_s', value: 'as fast as it goes' },
      { profile_id: 'q', key: 'layer_height_mm', value: '0' },
    ],
  });
  expect(contenderSettings(tables)).toEqual({
    R: { layer_height_mm: 0.2, speed_mm_s: 120 },
    C: { layer_height_mm: null, speed_mm_s: null },
  });
});
