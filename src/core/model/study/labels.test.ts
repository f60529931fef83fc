import { describe, expect, it } from 'vitest';
import { columnLabel, columnsOf, columnWords, counted, inWords, nextCodes, TABLE_NAMES } from '.';

describe('a column in words', () => {
  it.each([
    ['nozzle_temp_c', 'nozzle temp (°C)'],
    ['max_flow_mm3_s', 'flow limit (mm³/s)'],
    ['claimed_accel_mm_s2', 'claimed acceleration (mm/s²)'],
    ['speed_outer_wall_mm_s', 'speed outer wall (mm/s)'],
    ['density_g_cm3', 'density (g/cm³)'],
    ['price_per_kg', 'price per kg'],
    ['energy_wh', 'energy (Wh)'],
    ['humidity_pct', 'humidity (%)'],
    ['firmware', 'firmware'],
    ['artefact_id', 'artefact'],
    ['toolpath', 'sliced file'],
    ['db_a', 'level (dB(A))'],
    ['dried_h', 'drying time (h)'],
    ['started_at', 'started'],
    ['spool_id', 'spool'],
    ['px_per_mm', 'pixels per mm'],
  ])('%s', (column, words) => {
    expect(columnWords(column)).toBe(words);
  });

  it('of every table has no underscore left, nor an empty name', () => {
    for (const table of TABLE_NAMES) {
      for (const { name } of columnsOf(table)) {
        const { label } = columnLabel(name);
        expect(label, `${table}.${name}`).toMatch(/^[^_]+$/);
        expect(label, `${table}.${name}`).not.toMatch(/(?<!permanent) id$|^at$/);
      }
    }
  });
});

describe('words of catalogues', () => {
  it.each([
    ['loose-strands', 'loose strands'],
    ['under-extruded', 'under-extruded'],
    ['over-extruded', 'over-extruded'],
    ['wall-over-air', 'wall over air'],
    ['success', 'success'],
  ])('%s', (key, words) => {
    expect(inWords(key)).toBe(words);
  });

  it('counts go with their nouns', () => {
    expect(counted(1, 'print')).toBe('1 print');
    expect(counted(0, 'print')).toBe('0 prints');
    expect(counted(2, 'entry', 'entries')).toBe('2 entries');
  });
});

describe('the next sticker codes', () => {
  it.each([
    [[], 2, ['S-001', 'S-002']],
    [['K7-008', 'K7-009'], 2, ['K7-010', 'K7-011']],
    [['A9'], 2, ['A10', 'A11']],
    [['S-999'], 1, ['S-1000']],
    [['last', 'S-002', 'S-001'], 1, ['S-003']],
    [['007'], 1, ['008']],
  ])('after %j', (existing, count, codes) => {
    expect(nextCodes(existing, count)).toEqual(codes);
  });
});
