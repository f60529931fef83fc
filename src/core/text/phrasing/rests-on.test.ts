import { describe, expect, it } from 'vitest';
import { describeRestsOn } from './rests-on';

const NAMES = {
  artefacts: { block: 'Stair block', field: 'Tile field', spires: 'Spire pair' },
  contenders: { b: 'Gannet stock', d: 'Fulmar stock' },
};
const pair = (contender: string, on: string[], notes: string[] = []) => ({ contender, on, notes });

describe('what a comparison rests on', () => {
  it('is one sentence: parts of the same materials together', () => {
    const on = ['block/PLA', 'spires/PLA', 'field/PLA', 'spires/PETG'];
    expect(describeRestsOn([pair('b', on), pair('d', on)], NAMES)).toEqual([
      'Compared on the Stair block and Tile field in PLA; Spire pair in PETG and PLA.',
    ]);
  });

  it('names who was compared on fewer, and what was not compared', () => {
    const found = describeRestsOn(
      [
        pair('b', ['block/PLA', 'spires/PLA']),
        pair(
          'd',
          ['block/PLA'],
          [
            'spires in PETG is on one side only: not compared',
            'one print on a side can show, not decide',
          ],
        ),
      ],
      NAMES,
    );
    expect(found).toEqual([
      'Compared on the Stair block and Spire pair in PLA.',
      'Fulmar stock is compared without the Spire pair in PLA.',
      'Spire pair in PETG is on one side only: not compared.',
    ]);
  });

  it('says no material where materials are what is compared, and nothing of no comparison', () => {
    expect(describeRestsOn([pair('b', ['block', 'field'])], NAMES)).toEqual([
      'Compared on the Stair block and Tile field.',
    ]);
    expect(describeRestsOn([], NAMES)).toEqual([]);
  });
});
