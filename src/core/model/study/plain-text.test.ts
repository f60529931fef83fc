import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { isPlainText, plainText, plainValue } from './plain-text';

const anything = fc.string({ unit: 'binary', maxLength: 40 });
/** Halves of pairs too. */
const broken = fc
  .array(fc.integer({ min: 0, max: 0xffff }), { maxLength: 30 })
  .map((units) => String.fromCharCode(...units));

describe('plain text', () => {
  it('whatever comes, what is kept is plain, and as long', () => {
    fc.assert(
      fc.property(fc.oneof(anything, broken), (text) => {
        const kept = plainText(text);
        expect(isPlainText(kept)).toBe(true);
        expect(kept).toHaveLength(text.length);
        // What UTF-8 can carry comes back as it went.
        expect(Buffer.from(kept, 'utf8').toString('utf8')).toBe(kept);
      }),
    );
  });

  it('is left as it is where nothing is wrong with it', () => {
    for (const text of ['', 'a\tb\r\nc', 'ß µ ≤ −', '😀', '\u0085\u2028']) {
      expect(isPlainText(text)).toBe(true);
      expect(plainText(text)).toBe(text);
    }
  });

  it('knows what a database cannot keep', () => {
    for (const text of ['\0', 'a\u0007', '\u007f', '\ud83d', '\ude00', '\ude00\ud83d']) {
      expect(isPlainText(text)).toBe(false);
    }
    expect(plainText('a\0b\ud800')).toBe('a\ufffdb\ufffd');
  });

  it('in values: keys and texts, however deep, and the same object where nothing changes', () => {
    const clean = { a: ['x', 1, null, { b: 'y' }] };
    expect(plainValue(clean)).toBe(clean);
    expect(plainValue({ 'k\0': ['\0', { deep: '\ud800' }], n: 3 })).toEqual({
      'k\ufffd': ['\ufffd', { deep: '\ufffd' }],
      n: 3,
    });
  });
});
