import { describe, expect, it } from 'vitest';
import type { Stored } from '../../../contract/rows';
import { medianTime, nextCell, nextRepeat, runCells, tallied, turnOf } from './runs-model';

const print = (contender_id: string, repeat: number, outcome: string, print_s: number | null) =>
  ({
    print_id: `${contender_id}-${repeat}`,
    contender_id,
    artefact_id: 'clip',
    repeat,
    outcome,
    print_s,
    started_at: '2026-03-02T08:00:00Z',
  }) as Stored<'prints'>;

const plan = (contender_id: string, repeats: number) =>
  ({ contender_id, artefact_id: 'clip', material_id: 'pla', repeats }) as Stored<'planned'>;

const states = (cells: ReturnType<typeof runCells>, contender: string) =>
  cells.get(`clip ${contender}`)?.map(({ repeat, state }) => `${repeat} ${state}`);

describe('the matrix of prints', () => {
  it('has a place for each planned repeat, in order', () => {
    const cells = runCells(
      ['clip'],
      ['A', 'B'],
      [print('A', 2, 'failed', null)],
      [print('B', 1, '', null)],
      [plan('A', 3), plan('B', 1)],
    );
    expect(states(cells, 'A')).toEqual(['1 due', '2 failed', '3 due']);
    expect(states(cells, 'B')).toEqual(['1 open']);
  });

  it('without a plan gives every contender the repeats that any has', () => {
    const cells = runCells(['clip'], ['A', 'B'], [print('A', 2, 'success', 60)], []);
    expect(states(cells, 'A')).toEqual(['1 due', '2 success']);
    expect(states(cells, 'B')).toEqual(['1 due', '2 due']);
  });

  it('prints beyond the plan stay, and where only the latest are here none is due before', () => {
    const tallies = [
      { contender_id: 'A', artefact_id: 'clip', success: 5, rescued: 0, failed: 0, aborted: 0 },
    ];
    const prints = [print('A', 4, 'success', 60), print('A', 5, 'success', 60)];
    const cells = runCells(['clip'], ['A'], prints, [], [plan('A', 3)], tallies);
    expect(states(cells, 'A')).toEqual(['4 success', '5 success']);
    expect(nextRepeat(cells.get('clip A') ?? [])).toBe(6);
  });

  it('the next repeat is the first that is due', () => {
    const cells = runCells(['clip'], ['A'], [print('A', 1, 'success', 60)], [], [plan('A', 3)]);
    expect(nextRepeat(cells.get('clip A') ?? [])).toBe(2);
    expect(nextRepeat([])).toBe(1);
  });

  it('the median time is over finished prints with a known time', () => {
    const own = (...times: (number | null)[]) =>
      medianTime(
        runCells(
          ['clip'],
          ['A'],
          times.map((time, at) => print('A', at + 1, 'success', time)),
          [],
        ).get('clip A') ?? [],
      );
    expect(own(30, 10, 20)).toBe(20);
    expect(own(10, 20, null, 40, 30)).toBe(25);
    expect(own(null)).toBeNull();
    const failed = runCells(['clip'], ['A'], [print('A', 1, 'failed', 60)], []);
    expect(medianTime(failed.get('clip A') ?? [])).toBeNull();
  });
});

describe('what is printed next', () => {
  const cells = [
    ...runCells(['clip'], ['A', 'B'], [], [], [plan('A', 2), plan('B', 2)]).values(),
  ].flat();
  const order = [
    ['B', 1],
    ['A', 1],
  ].map(([contender_id, repeat]) => ({ contender_id, artefact_id: 'clip', repeat })) as never[];

  it('is the first of the order whose machine is free', () => {
    expect(nextCell(cells, order, () => false)).toMatchObject({ contender: 'B', repeat: 1 });
    expect(nextCell(cells, order, (id) => id === 'B')).toMatchObject({ contender: 'A', repeat: 1 });
    expect(nextCell(cells, order, () => true)).toBeUndefined();
    expect(nextCell(cells, [], () => false)).toMatchObject({ contender: 'A', repeat: 1 });
  });
});

describe('turning a print over', () => {
  const event = (kind: string, minute: number) =>
    ({ print_id: 'A-1', kind, at: `2026-03-02T08:0${minute}:00Z` }) as Stored<'print_events'>;
  const running = print('A', 1, '', null);

  it.each([
    [[], 'paused'],
    [[event('paused', 1)], 'resumed'],
    [[event('paused', 1), event('resumed', 2)], 'paused'],
    [[event('stalled', 1)], 'moved'],
  ])('%#', (events, kind) => {
    expect(turnOf(running, events)).toBe(kind);
  });

  it('events of another print say nothing of it', () => {
    expect(turnOf(running, [{ ...event('paused', 1), print_id: 'B-1' }])).toBe('paused');
  });
});

describe('tallies', () => {
  it('count one more print where they have its like, and begin one where not', () => {
    const first = tallied([], print('A', 1, 'success', 60));
    expect(first).toEqual([
      { contender_id: 'A', artefact_id: 'clip', success: 1, rescued: 0, failed: 0, aborted: 0 },
    ]);
    const second = tallied(first, print('A', 2, 'failed', null));
    expect(second).toMatchObject([{ success: 1, failed: 1 }]);
    expect(tallied(second, print('B', 1, 'success', 60))).toHaveLength(2);
  });
});
