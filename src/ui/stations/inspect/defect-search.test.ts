import { describe, expect, it } from 'vitest';
import { DEFECTS } from '../../../core/model/study';
import { defectsFor } from './defect-search';

describe('a defect by its first letters', () => {
  it.each([
    ['ri', ['ringing']],
    [
      's',
      [
        'stringing',
        'seam',
        'scarring',
        'support-scars',
        'layer-shift',
        'bridge-sag',
        'infill-show-through',
      ],
    ],
    ['gaps', ['gaps', 'first-layer-gaps']],
    ['band', ['vertical-banding', 'layer-banding']],
    ['ble', ['colour-bleed']],
    ['foot', ['elephant-foot']],
    ['under', ['under-extrusion', 'rough-underside']],
    ['xyz', []],
  ])('%s', (typed, expected) => {
    expect(defectsFor(typed)).toEqual(expected);
  });

  it('every defect is found by the letters of its own name, first of all', () => {
    for (const defect of DEFECTS) {
      const [first] = defectsFor(defect.replaceAll('-', ' '));
      // A word that is kept together by its hyphen is found by that.
      expect([first, defectsFor(defect)[0]]).toContain(defect);
    }
    expect(defectsFor('')).toHaveLength(DEFECTS.length);
  });
});
