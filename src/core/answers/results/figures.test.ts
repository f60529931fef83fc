import { describe, expect, it } from 'vitest';
import { print, smallStudy, TWO_SIDES } from '../../../../tests/support/small-study';
import { evidenceOf, openContext } from './index';

const dimension = (dimension_id: string, nominal_mm: number, kind = 'external') => ({
  artefact_id: 'part',
  dimension_id,
  name: dimension_id,
  axis: 'x',
  kind,
  nominal_mm,
});
const study = smallStudy({
  ...TWO_SIDES,
  dimensions: [dimension('small', 8, 'hole'), dimension('large', 80)],
  prints: [print('p-1', 'C')],
  specimens: [{ specimen_id: 's', print_id: 'p-1', code: 'K-1' }],
  instruments: [
    {
      instrument_id: 'c',
      name: 'Caliper',
      resolution_mm: 0.02,
      expanded_uncertainty_mm: 0.03,
    },
  ],
  readings: [
    { specimen_id: 's', dimension_id: 'small', trial: 1, value_mm: 7.9, instrument_id: 'c' },
    { specimen_id: 's', dimension_id: 'large', trial: 1, value_mm: 80.2 },
  ],
});
const find = (figure: string) => evidenceOf(openContext(study), figure);
const column = (figure: string, label: string): (string | number | null)[] => {
  const [table] = find(figure)?.tables ?? [];
  const at = table?.columns.findIndex((one) => one.label === label) ?? -1;
  return table?.rows.map((row) => row[at] ?? null) ?? [];
};

describe('evidence of a group', () => {
  it('is its own cells, by kind or by size', () => {
    expect(column('accuracy:C:by_kind.hole.mae_mm', 'dimension')).toEqual(['small']);
    expect(column('accuracy:C:by_size.to-10.mae_mm', 'dimension')).toEqual(['small']);
    expect(column('accuracy:C:by_size.to-100.mae_mm', 'dimension')).toEqual(['large']);
    expect(find('accuracy:C:by_axis.x.bias_mm')?.title).toContain('axis x');
  });

  it('says how uncertain each cell is, or that this is not known', () => {
    // √(0.02²/12 + 0.015²) = 0.0161; the other reading names no instrument.
    expect(column('accuracy:C:by_size.to-10.mae_mm', 'u mm')).toEqual(['0.016']);
    expect(column('accuracy:C:by_size.to-100.mae_mm', 'u mm')).toEqual(['not known']);
  });

  it('of what is no group, or no contender, is none', () => {
    expect(find('accuracy:C:by_axis.elsewhere.mae_mm')).toBeNull();
    expect(find('accuracy:Z:by_axis.x.mae_mm')).toBeNull();
  });
});
