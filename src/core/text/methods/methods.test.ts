import { describe, expect, it } from 'vitest';
import { METHODS, methodOf } from '.';

const all = METHODS.flatMap(({ methods }) => methods);
const sentencesOf = (text: string): string[] => text.split(/(?<=[.:!?])\s+(?=[A-Z“≈▲])/);

describe('words and methods', () => {
  it('has each term once, and finds it', () => {
    const ids = all.map(({ id }) => id);
    expect(new Set(ids).size).toBe(ids.length);
    for (const method of all) expect(methodOf(method.id)).toBe(method);
    expect(methodOf('nothing')).toBeUndefined();
  });

  it('explains each term in two sentences beside it', () => {
    for (const { id, what } of all) {
      expect(sentencesOf(what).length, `${id}: ${what}`).toBeLessThanOrEqual(2);
      expect(what.length, id).toBeLessThan(260);
    }
  });

  it('uses no sentence over 32 words', () => {
    const long = all.flatMap(({ id, what, read, not, computed }) =>
      [what, read, not, computed]
        .flatMap(sentencesOf)
        .filter((sentence) => sentence.split(/\s+/).length > 32)
        .map((sentence) => `${id}: ${sentence}`),
    );
    expect(long).toEqual([]);
  });
});
