import { describe, expect, it } from 'vitest';
import { print, smallStudy, TWO_SIDES } from '../../../../tests/support/small-study';
import { indexStudy, type Row } from '../../model/study';
import { functionsOfAll, laddersOfAll } from '.';

type Result = Row<'ladder_results'>['result'];

const STEPS = [0.6, 0.5, 0.4, 0.3];

/** A ladder of four gaps, and how each specimen of R did on it, step by step; null is not noted. */
function ladder(results: (Result | null)[][]) {
  const study = smallStudy({
    ...TWO_SIDES,
    ladders: [
      { artefact_id: 'part', ladder_id: 'gap', name: 'gap', quantity: 'clearance', unit: 'mm' },
    ],
    ladder_steps: STEPS.map((value, at) => ({
      artefact_id: 'part',
      ladder_id: 'gap',
      step: at + 1,
      value,
    })),
    prints: results.map((_, at) => print(`p${at}`, 'R')),
    specimens: results.map((_, at) => ({ specimen_id: `s${at}`, print_id: `p${at}` })),
    ladder_results: results.flatMap((own, at) =>
      own.flatMap((result, step) =>
        result === null
          ? []
          : [{ specimen_id: `s${at}`, ladder_id: 'gap', step: step + 1, result }],
      ),
    ),
  });
  const found = laddersOfAll(indexStudy(study)).R?.['part/gap'];
  if (!found) throw new Error('no ladder');
  return found;
}

describe('how far a contender gets on a ladder', () => {
  it('is the hardest step that at least half pass clear, as they do every easier one', () => {
    const found = ladder([
      ['clear', 'clear', 'clear', 'fail'],
      ['clear', 'clear', 'fail', 'fail'],
    ]);
    expect([found.limit, found.specimens, found.unit]).toEqual([0.4, 2, 'mm']);
    expect(found.by_step[2]).toEqual({
      step: 3,
      value: 0.4,
      clear: 1,
      effort: 0,
      fail: 1,
      broken: 0,
      untested: 0,
    });
  });

  it('does not jump over a step that was failed', () => {
    expect(ladder([['clear', 'fail', 'clear', 'clear']]).limit).toBe(0.6);
  });

  it('counts effort apart, and what broke as not passed', () => {
    const found = ladder([['clear', 'effort', 'effort', 'broken']]);
    expect([found.limit, found.limit_with_effort]).toEqual([0.6, 0.4]);
  });

  it('is none where the easiest was failed, and that is not the same as not tried', () => {
    expect(ladder([['fail', 'fail', null, null]])).toMatchObject({ limit: null, specimens: 1 });
    expect(ladder([[null, null, null, null]])).toMatchObject({ limit: null, specimens: 0 });
  });

  it('says of each step how many were not tried on it', () => {
    const found = ladder([
      ['clear', 'untested', null, null],
      ['clear', 'clear', 'fail', null],
    ]);
    expect(found.by_step.map(({ untested }) => untested)).toEqual([0, 1, 1, 2]);
  });
});

describe('function checks', () => {
  it('are counted by how they went', () => {
    const study = smallStudy({
      ...TWO_SIDES,
      prints: ['a', 'b', 'c'].map((id) => print(id, 'R')),
      specimens: ['a', 'b', 'c'].map((id) => ({ specimen_id: id, print_id: id })),
      function_results: [
        { specimen_id: 'a', check: 'turns', result: 'works' },
        { specimen_id: 'b', check: 'turns', result: 'works-with-effort' },
        { specimen_id: 'c', check: 'turns', result: 'fails' },
        { specimen_id: 'c', check: 'clicks', result: 'works' },
      ],
    });
    expect(functionsOfAll(indexStudy(study)).R).toEqual({
      'part/turns': { works: 1, works_with_effort: 1, fails: 1 },
      'part/clicks': { works: 1, works_with_effort: 0, fails: 0 },
    });
  });
});
