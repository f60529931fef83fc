import { describe, expect, it } from 'vitest';
import { print, smallStudy, TWO_SIDES } from '../../../../tests/support/small-study';
import { evaluate } from '../../answers/results';
import { indexStudy, type Row } from '../../model/study';
import { logPrintTimes, timedPrints } from '.';

const timed = (id: string, contender: string, print_s: number, more: Partial<Row<'prints'>> = {}) =>
  print(id, contender, { print_s, ...more });

const speedOf = (prints: Record<string, unknown>[], contender = 'C') => {
  const study = smallStudy({
    ...TWO_SIDES,
    artefacts: [
      { artefact_id: 'part', name: 'Part' },
      { artefact_id: 'other', name: 'Other' },
    ],
    prints,
  });
  const { speed } = evaluate(study);
  const own = speed[contender];
  if (!own) throw new Error('no speed');
  return { own, study };
};

describe('how fast a contender is', () => {
  it('is told by finished prints whose time is known', () => {
    const { own, study } = speedOf([
      timed('c1', 'C', 100),
      timed('c2', 'C', 300, { outcome: 'rescued' }),
      timed('c3', 'C', 50, { outcome: 'failed' }),
      print('c4', 'C'),
      timed('r1', 'R', 100),
    ]);
    expect(own).toMatchObject({ prints: 2, median_print_s: 200 });
    expect(own.notes).toEqual(['1 finished prints without a printing time']);
    expect(timedPrints(indexStudy(study), 'C').map((row) => row.print_id)).toEqual(['c1', 'c2']);
    expect(logPrintTimes(indexStudy(study), 'C').get('part/PLA')?.[0]).toBeCloseTo(
      Math.log(100),
      12,
    );
  });

  it('is a ratio of geometric means, artefact by artefact', () => {
    // 100·400 against 200·200: the same by geometric means, though not by plain ones.
    const { own } = speedOf([
      timed('c1', 'C', 100),
      timed('c2', 'C', 400),
      timed('r1', 'R', 200),
      timed('r2', 'R', 200),
      timed('c3', 'C', 50, { artefact_id: 'other' }),
      timed('r3', 'R', 100, { artefact_id: 'other' }),
    ]);
    expect(own.by_artefact.part?.ratio_to_reference).toBeCloseTo(1, 12);
    expect(own.by_artefact.other).toMatchObject({ n: 1, median_print_s: 50 });
    expect(own.by_artefact.other?.ratio_to_reference).toBeCloseTo(0.5, 12);
    // Both artefacts count the same: √(1 · ½).
    expect(own.time_index.estimate).toBeCloseTo(Math.SQRT1_2, 9);
  });

  it('is 1 for the reference, and not known against one that printed something else', () => {
    const prints = [timed('r1', 'R', 100), timed('c1', 'C', 80, { artefact_id: 'other' })];
    expect(speedOf(prints, 'R').own.time_index.estimate).toBe(1);
    const { own } = speedOf(prints);
    expect(own.time_index.estimate).toBeNull();
    expect(own.by_artefact.other).toMatchObject({
      ratio_to_reference: null,
      notes: ['the reference has no timed print of this artefact in the same material'],
    });
  });

  it('is held against what the files promised', () => {
    const { own } = speedOf([
      timed('c1', 'C', 110, { estimate_s: 100 }),
      timed('c2', 'C', 220, { estimate_s: 200 }),
      timed('c3', 'C', 500),
      timed('r1', 'R', 100),
    ]);
    expect(own.estimate_ratio.estimate).toBeCloseTo(1.1, 12);
  });

  it('says so where nothing was finished', () => {
    const { own } = speedOf([timed('c1', 'C', 60, { outcome: 'failed' }), timed('r1', 'R', 100)]);
    expect(own).toMatchObject({ prints: 0, median_print_s: null });
    expect(own.notes).toEqual(['no finished print whose printing time is known']);
    expect(own.by_artefact.part).toMatchObject({ n: 0, median_print_s: null });
  });
});
