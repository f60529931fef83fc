import { describe, expect, it } from 'vitest';
import { askedSpecimen } from './asked-specimen';

const specimens = [
  { specimen_id: 'S-1', code: null },
  { specimen_id: 'S-2', code: 'K7-042' },
  { specimen_id: 'K7-042', code: 'K7-043' },
];
const asked = (text: string | null) => askedSpecimen(specimens, text)?.specimen_id;

describe('the specimen that an address asks for', () => {
  it('is found by its id, and else by its code in any case', () => {
    expect(asked('S-1')).toBe('S-1');
    expect(asked('K7-042')).toBe('K7-042');
    expect(asked('k7-043')).toBe('K7-042');
    expect(asked('k7-042')).toBe('S-2');
  });

  it('is none where none is asked for, though one has no sticker', () => {
    expect(asked(null)).toBeUndefined();
    expect(asked('')).toBeUndefined();
    expect(asked('null')).toBeUndefined();
  });
});
