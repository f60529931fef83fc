import { describe, expect, it } from 'vitest';
import { Unheard } from './unheard';

const change = (revision: string) => ({
  study_id: 's',
  revision,
  is_gone: false,
  tab: null,
  parts: ['prints'],
});
const revisions = (changes: { revision: string }[]) => changes.map(({ revision }) => revision);

describe('what a stream has still to tell', () => {
  it('waits until how the study stands is told, and is what is not in that', () => {
    const unheard = new Unheard();
    expect(unheard.take(change('9'))).toEqual([]);
    expect(unheard.take(change('10'))).toEqual([]);
    expect(unheard.take(change('11'))).toEqual([]);
    expect(revisions(unheard.stand('10'))).toEqual(['11']);
    expect(unheard.stand('11')).toEqual([]);
  });

  it('is every newer change from then on, and none that comes late', () => {
    const unheard = new Unheard();
    unheard.stand('99');
    expect(revisions(unheard.take(change('100')))).toEqual(['100']);
    expect(unheard.take(change('99'))).toEqual([]);
    // After a gap the study is told anew.
    unheard.stand('120');
    expect(unheard.take(change('119'))).toEqual([]);
    expect(revisions(unheard.take(change('121')))).toEqual(['121']);
  });
});
