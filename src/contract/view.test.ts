import { describe, expect, it } from 'vitest';
import { toggled, viewOf, viewQuery, withReference } from './view';

describe('the view', () => {
  it('stands in the address and comes back from it', () => {
    const view = { hidden: new Set(['D', 'B']), reference: 'C' };
    expect(viewQuery(view)).toBe('?hide=B&hide=D&ref=C');
    expect(viewOf(new URLSearchParams(viewQuery(view)))).toEqual(view);
    expect(viewQuery({ hidden: new Set(), reference: null })).toBe('');
  });

  it('a contender is hidden and shown; the reference is never hidden', () => {
    const view = { hidden: new Set(['B']), reference: null };
    expect([...toggled(view, 'B').hidden]).toEqual([]);
    expect([...toggled(view, 'C').hidden]).toEqual(['B', 'C']);
    expect(withReference(view, 'B', 'A')).toEqual({ hidden: new Set(), reference: 'B' });
    expect(withReference(view, 'A', 'A').reference).toBeNull();
  });
});
