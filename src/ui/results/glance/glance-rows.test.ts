import { describe, expect, it } from 'vitest';
import type { GlanceRow } from '../../../core/answers/glance';
import { firstOfGroups, groupedRows, movedWithin } from './glance-rows';

const row = (key: string, group: string) => ({ key, words: { group } }) as unknown as GlanceRow;
const ROWS = [
  row('surface', 'Surface'),
  row('mae', 'Accuracy'),
  row('worst', 'Accuracy'),
  row('bias', 'Accuracy'),
];
const keys = (groups: ReturnType<typeof groupedRows>) =>
  groups.map(({ group, rows }) => [group, rows.map((one) => one.key)]);

describe('the rows of the glance', () => {
  it('stand by group, in the groups’ own order, without empty ones and those left out', () => {
    expect(keys(groupedRows(ROWS, new Set(['worst']), []))).toEqual([
      ['Accuracy', ['mae', 'bias']],
      ['Surface', ['surface']],
    ]);
  });

  it('stand in the order that they were moved to; new ones come last', () => {
    const groups = groupedRows(ROWS, new Set(), ['bias', 'mae']);
    expect(keys(groups)[0]).toEqual(['Accuracy', ['bias', 'mae', 'worst']]);
  });

  it('are the first of a folded group only', () => {
    const shown = firstOfGroups(groupedRows(ROWS, new Set(), []), new Set(['Accuracy']));
    expect(shown.map((one) => one.key)).toEqual(['mae', 'surface']);
  });

  it('move within their group, and stay where they cannot go further', () => {
    const groups = groupedRows(ROWS, new Set(), []);
    expect(movedWithin(groups, 'mae', 1)).toEqual(['worst', 'mae', 'bias', 'surface']);
    expect(movedWithin(groups, 'bias', -2)).toEqual(['bias', 'mae', 'worst', 'surface']);
    expect(movedWithin(groups, 'mae', -1)).toBeNull();
    expect(movedWithin(groups, 'bias', 1)).toBeNull();
    expect(movedWithin(groups, 'nothing', 1)).toBeNull();
  });
});
