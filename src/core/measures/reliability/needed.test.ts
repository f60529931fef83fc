import { describe, expect, it } from 'vitest';
import { printsToTellApart } from './index';

describe('prints that tell two shares apart', () => {
  it('agrees with published tables without continuity correction', () => {
    // Two-sided 5 %, 80 % power: 0.9 against 0.7 takes 62 each; 0.6 against 0.5 takes 388.
    expect(printsToTellApart([0.9, 0.7], 0.05)).toBe(62);
    expect(printsToTellApart([0.5, 0.6], 0.05)).toBe(388);
  });

  it('is the same from either side, and nothing tells equal shares apart', () => {
    expect(printsToTellApart([0.7, 0.9], 0.05)).toBe(62);
    expect(printsToTellApart([0.8, 0.8], 0.05)).toBeNull();
  });
});
