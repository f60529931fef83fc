import { expect, it } from 'vitest';
import { TABLES } from '../../model/study';
import { expectedMass } from '.';

const made = (
  artefact_id: string,
  filament_g: number | null,
  outcome: 'success' | 'failed' | 'aborted' | 'rescued',
) => ({
  contender_id: 'A',
  artefact_id,
  filament_g,
  outcome,
});
const planned = TABLES.planned.row.parse({
  contender_id: 'A',
  artefact_id: 'wall',
  material_id: 'pla',
  repeats: 2,
  toolpath: 'sliced/wall.gcode',
});
const files = new Map([['sliced/wall.gcode', 35.5]]);

it('what a print takes is the mean of those that were printed to the end', () => {
  const grams = expectedMass(
    [
      made('wall', 34, 'success'),
      made('wall', 36, 'rescued'),
      made('wall', 3, 'failed'),
      made('wall', 8, 'aborted'),
      made('wall', null, 'success'),
    ],
    [planned],
    files,
  );
  expect(grams('A', 'wall')).toBe(35);
});

it('before any is printed it is what the sliced file says, and else not known', () => {
  const grams = expectedMass([made('wall', 3, 'failed')], [planned], files);
  expect(grams('A', 'wall')).toBe(35.5);
  expect(grams('B', 'wall')).toBeNull();
  expect(expectedMass([], [planned], new Map())('A', 'wall')).toBeNull();
});
