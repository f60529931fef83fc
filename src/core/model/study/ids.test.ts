import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { idFrom } from './ids';
import { ID_PATTERN } from './values';

describe('an id made of a name', () => {
  it('is the name in plain letters, and a number where it is taken', () => {
    expect(idFrom('Gannet X24', [])).toBe('gannet-x24');
    expect(idFrom('Gannet X24', ['gannet-x24', 'gannet-x24-2'])).toBe('gannet-x24-3');
    expect(idFrom('Küstenseeschwalbe, groß', [])).toBe('kustenseeschwalbe-gross');
    expect(idFrom('Löffel (5 mm)', [])).toBe('loffel-5-mm');
    expect(idFrom('ﬁne Å½', [])).toBe('fine-a1-2');
  });

  it('is another word where nothing of the name is left', () => {
    expect(idFrom('北斗', [], 'machine')).toBe('machine');
    expect(idFrom('—', ['thing'])).toBe('thing-2');
  });

  it('is an id, and no other row’s, whatever the name', () => {
    const name = fc.string({ unit: 'grapheme', maxLength: 120 });
    fc.assert(
      fc.property(name, fc.integer({ min: 0, max: 4 }), (text, times) => {
        const taken: string[] = [];
        for (let time = 0; time <= times; time += 1) {
          const id = idFrom(text, taken);
          expect(id).toMatch(ID_PATTERN);
          expect(id).not.toMatch(/-$/);
          expect(taken).not.toContain(id);
          taken.push(id);
        }
      }),
    );
  });
});
