import { describe, expect, it } from 'vitest';
import { survivalChart } from './survival-chart';

const row = (t_h: number, s: number, events = 1) => ({
  t_h,
  s,
  events,
  at_risk: 9,
  low: null,
  high: null,
});
const machine = (id: string) => ({ id, name: id.toUpperCase() });

describe('how long machines run between incidents', () => {
  it('starts whole, falls at each gap, and goes on to the longest of all', () => {
    const found = survivalChart(
      { 'machine:a': [row(2, 0.8), row(5, 0.4)], 'machine:b': [row(9, 0.75)] },
      [machine('b'), machine('a'), machine('c')],
    );
    // Who had more incidents comes first.
    expect(found?.series.map(({ name }) => name)).toEqual(['A', 'B']);
    expect(found?.series[0]?.points).toEqual([
      [0, 1],
      [2, 0.8],
      [5, 0.4],
      [9, 0.4],
    ]);
    expect(found?.sentence).toBe(
      'A: half the gaps end within 5.0 h; B: 75\u00a0% of the gaps last longer than 9.0 h; 1 ' +
        'machine without an incident. The operator’s own mistakes are left out.',
    );
  });

  it('shows five at most, told apart by more than their colour', () => {
    const ids = ['a', 'b', 'c', 'd', 'e', 'f', 'g'];
    const survival = Object.fromEntries(
      ids.map((id, at) => [`machine:${id}`, [row(1, 0.5, at + 1)]]),
    );
    const found = survivalChart(survival, ids.map(machine));
    expect(found?.series.map(({ name }) => name)).toEqual(['G', 'F', 'E', 'D', 'C']);
    const looks = found?.series.map(({ colour, dashed }) => `${colour} ${dashed}`);
    expect(new Set(looks).size).toBe(5);
    expect(found?.series.filter(({ dashed }) => dashed)).toHaveLength(2);
  });

  it('is nothing where nothing went wrong', () => {
    expect(survivalChart({ 'machine:a': [] }, [machine('a')])).toBeNull();
  });
});
