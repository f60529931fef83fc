import { describe, expect, it } from 'vitest';
import { figureText, figureWords, type FigureNames } from './index';

const NAMES: FigureNames = {
  artefacts: { 'ring-stack': 'Ring stack', wall: 'Echo wall' },
  ladders: {
    'ring-stack/clearance': { name: 'gap', unit: 'mm', isUpward: false, digits: 2 },
  },
  panels: { front: 'the front' },
  currency: 'EUR',
};

describe('a figure by its key, in words', () => {
  it.each([
    ['accuracy_mm', 'Accuracy', 'mean deviation', 'mm', false],
    ['price', 'Cost', 'price', 'EUR', false],
    ['limit:ring-stack/clearance', 'Limits', 'gap, Ring stack', 'mm', false],
    ['limit:ring-stack/other', 'Limits', 'other, Ring stack', '', null],
    ['works:ring-stack/turns/freely', 'Limits', 'turns/freely, Ring stack', '%', true],
    [
      'photo:wall/ringing/raking-left',
      'Surface',
      'ringing, Echo wall, light from the left',
      '%',
      false,
    ],
    ['panel:front', 'Surface', 'panel: the front', '', true],
    ['panel:back', 'Surface', 'panel: back', '', true],
    ['trial:runout-sensor', 'Handling', 'runout sensor as promised', '%', true],
    ['mark:screen', 'Handling', 'screen, mark 0–10', '', true],
  ])('%s', (key, group, label, unit, isLargerBetter) => {
    expect(figureWords(key, NAMES)).toMatchObject({ group, label, unit, isLargerBetter });
  });

  it('is written in its unit', () => {
    expect(figureText(figureWords('success', NAMES), 0.931)).toBe('93 %');
    expect(figureText(figureWords('surface', NAMES), 84.46)).toBe('84.5');
    expect(figureText(figureWords('limit:ring-stack/clearance', NAMES), 0.3)).toBe('0.30 mm');
  });
});
