import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { pickedIn, withPicked } from './picked';

describe('figures picked for a report', () => {
  it('are each there once, the latest last', () => {
    let text = withPicked('', { address: 'accuracy:A:mae_mm', title: 'A: deviation' });
    text = withPicked(text, { address: 'surface:A:index', title: 'A: surface' });
    text = withPicked(text, { address: 'accuracy:A:mae_mm', title: 'A: deviation\tagain' });
    expect(pickedIn(text)).toEqual([
      { address: 'surface:A:index', title: 'A: surface' },
      { address: 'accuracy:A:mae_mm', title: 'A: deviation again' },
    ]);
  });

  it('are at most thirty, whatever was remembered', () => {
    fc.assert(
      fc.property(fc.array(fc.string(), { maxLength: 60 }), (lines) => {
        const text = lines.reduce(
          (before, line, at) => withPicked(before, { address: `a:b:${at}`, title: line }),
          lines.join('\n'),
        );
        expect(pickedIn(text).length).toBeLessThanOrEqual(30);
      }),
    );
    expect(pickedIn('nonsense\nwithout:address')).toEqual([]);
  });
});
