import { describe, expect, it } from 'vitest';
import * as fc from 'fast-check';
import { groupBy } from '../../model/study';
import { checkPlan, questionsOf, type PanelPlan, type PanelQuestion } from '.';
import { williamsRows } from './williams';

const specimens = (contender: string, count: number) =>
  Array.from({ length: count }, (_, at) => `${contender}${at + 1}`);
const plan = (
  kind: PanelPlan['kind'],
  counts: number[],
  more: Partial<PanelPlan> = {},
): PanelPlan => ({
  kind,
  target: kind === 'guess' ? 'A' : null,
  questions: 1,
  repeats: 0,
  seed: 7,
  contenders: counts.map((count, at) => {
    const contender_id = 'ABCDEFGH'[at] ?? '?';
    return { contender_id, specimens: specimens(contender_id, count) };
  }),
  ...more,
});

const owner = (specimen: string) => specimen.slice(0, 1);
const spread = (counts: Iterable<number>) => {
  const all = [...counts];
  return Math.max(...all) - Math.min(...all);
};
const countBy = <Item>(items: readonly Item[], key: (item: Item) => string) => {
  const counts = new Map<string, number>();
  for (const item of items) counts.set(key(item), (counts.get(key(item)) ?? 0) + 1);
  return counts;
};
const coupleOf = (question: PanelQuestion) =>
  [...new Set(question.items.map(owner))].sort().join('');

describe('a Williams square', () => {
  it.each([1, 2, 3, 4, 5, 6, 7, 10, 15])('of %i is balanced', (count) => {
    const rows = williamsRows(count);
    const expected = rows.length / count;
    for (let place = 0; place < count; place += 1) {
      const found = countBy(
        rows.map((row) => row[place]),
        String,
      );
      expect([...found.values()]).toEqual(Array(count).fill(expected));
    }
    const after = countBy(
      rows.flatMap((row) => row.slice(1).map((thing, at) => `${row[at]} ${thing}`)),
      String,
    );
    expect(after.size).toBe(count * (count - 1));
    if (count > 1) expect(spread(after.values())).toBe(0);
  });
});

describe('the order of a panel', () => {
  it('of pairs shows every couple as often, left and right alike, in every place', () => {
    // Four contenders: six couples; 24 judges are four times the square.
    const judges = questionsOf(plan('paired', [3, 3, 3, 3], { questions: 6 }), 24);
    const all = judges.flat();
    expect([...countBy(all, coupleOf).values()]).toEqual(Array(6).fill(24));
    // Each couple: twelve times the one left, twelve times the other.
    expect([...countBy(all, ({ items }) => items.map(owner).join('')).values()]).toEqual(
      Array(12).fill(12),
    );
    for (let place = 0; place < 6; place += 1) {
      const found = countBy(
        judges.map((own) => own[place] as PanelQuestion),
        coupleOf,
      );
      expect([...found.values()]).toEqual(Array(6).fill(4));
    }
    // Each specimen of twelve stands for its contender in 24 of 288 places, or one more or less.
    const uses = countBy(
      all.flatMap(({ items }) => items),
      String,
    );
    expect(uses.size).toBe(12);
    expect(spread(uses.values())).toBeLessThanOrEqual(2);
  });

  it('of a part of the couples is as balanced over a whole square', () => {
    const judges = questionsOf(plan('paired', [2, 2, 2, 2], { questions: 3 }), 6);
    expect([...countBy(judges.flat(), coupleOf).values()]).toEqual(Array(6).fill(3));
  });

  it('of a guess shows the one asked after every time, left and right alike', () => {
    const all = questionsOf(plan('guess', [2, 2, 2], { questions: 4 }), 10).flat();
    expect(all.every(({ items }) => items.filter((item) => owner(item) === 'A').length === 1)).toBe(
      true,
    );
    expect(all.filter(({ items }) => owner(items[0] ?? '') === 'A')).toHaveLength(20);
  });

  it('of triangles has its six orders equally often', () => {
    const all = questionsOf(plan('triangle', [3, 3], { questions: 2 }), 12).flat();
    const orders = countBy(all, ({ items }) => items.map(owner).join(''));
    expect([...orders.values()]).toEqual(Array(6).fill(4));
    expect([...orders.keys()].sort()).toEqual(['AAB', 'ABA', 'ABB', 'BAA', 'BAB', 'BBA']);
    expect(all.every(({ items }) => new Set(items).size === 3)).toBe(true);
  });

  it('is the same for the same seed, and goes on as it began', () => {
    const own = plan('paired', [2, 2, 2], { questions: 3, repeats: 1 });
    expect(questionsOf(own, 9).slice(0, 4)).toEqual(questionsOf(own, 4));
    expect(questionsOf({ ...own, seed: 8 }, 4)).not.toEqual(questionsOf(own, 4));
  });

  const PLANS = fc
    .record({
      kind: fc.constantFrom('paired', 'triangle', 'guess' as const),
      counts: fc.array(fc.integer({ min: 2, max: 4 }), { minLength: 2, maxLength: 5 }),
      seed: fc.integer({ min: 0, max: 2 ** 31 }),
      questions: fc.integer({ min: 1, max: 8 }),
      repeats: fc.integer({ min: 0, max: 3 }),
      judges: fc.integer({ min: 1, max: 13 }),
    })
    .map(({ kind, counts, judges, ...more }) => ({
      judges,
      own: plan(kind as PanelPlan['kind'], counts, {
        ...more,
        repeats: Math.min(more.repeats, more.questions),
      }),
    }))
    .filter(({ own }) => {
      try {
        checkPlan(own);
        return true;
      } catch {
        return false;
      }
    });

  it('keeps, whatever is planned, what it says', () => {
    fc.assert(
      fc.property(PLANS, ({ own, judges }) => {
        const orders = questionsOf(own, judges);
        const fresh = orders.flat().filter((one) => one.repeats === null);
        // Left and right of each couple, to one; of a triangle, every order, to one.
        for (const questions of groupBy(fresh, coupleOf).values()) {
          const sides = countBy(questions, ({ items }) => items.map(owner).join(''));
          const ways = own.kind === 'triangle' ? 6 : 2;
          const counts = [...sides.values(), ...Array<number>(ways - sides.size).fill(0)];
          if (own.kind !== 'triangle') expect(spread(counts)).toBeLessThanOrEqual(1);
          else if (own.questions === 1) expect(spread(counts)).toBeLessThanOrEqual(1);
        }
        for (const questions of orders) {
          expect(questions).toHaveLength(own.questions + own.repeats);
          expect(questions.filter((one) => one.repeats !== null)).toHaveLength(own.repeats);
          // A code of a judge means one thing in one question; no ballot could be taken for another one.
          const codes = questions.flatMap((one) => one.codes);
          expect(new Set(codes).size).toBe(codes.length);
          for (const code of codes) expect(code).toMatch(/^[1-9]\d\d$/);
          expect(new Set(questions.map(({ items }) => items.join(' '))).size).toBe(
            questions.length,
          );
          for (const [at, { items, repeats }] of questions.entries()) {
            if (repeats === null) continue;
            expect(repeats).toBeLessThan(at);
            expect([...(questions[repeats]?.items ?? [])].sort()).toEqual([...items].sort());
            expect(questions[repeats]?.items).not.toEqual(items);
          }
        }
      }),
    );
  });

  it('puts a question that comes again a while after the first time', () => {
    for (const own of questionsOf(
      plan('paired', [2, 2, 2, 2], { questions: 12, repeats: 3 }),
      30,
    )) {
      for (const [at, { repeats }] of own.entries()) {
        if (repeats !== null) expect(at - repeats).toBeGreaterThan(3);
      }
    }
  });
});

describe('a plan that cannot be carried out', () => {
  it.each([
    [plan('paired', [2]), 'at least two contenders'],
    [plan('paired', [2, 0]), 'B has no specimen'],
    [plan('triangle', [2, 1]), 'B wants a second specimen'],
    [plan('guess', [1, 1], { target: 'Z' }), 'asks after one of its contenders'],
    [plan('paired', [2, 2], { questions: 0 }), '1 to 60'],
    [
      plan('paired', [1, 1], { questions: 2 }),
      'A and B have 1 different question between them, and a judge would get 2: ask at most 1',
    ],
    [plan('triangle', [2, 2], { questions: 5 }), 'ask at most 4'],
    [
      plan('paired', [2, 2], { questions: 2, repeats: 3 }),
      'No question comes more than once again',
    ],
    [plan('paired', [8, 8], { questions: 40, repeats: 30 }), 'at most 60'],
  ])('is refused with what to do (%#)', (own, words) => {
    expect(() => questionsOf(own, 1)).toThrow(words);
  });
});
