import { describe, expect, it } from 'vitest';
import { filamentFollows, filamentOf, fromFile } from './print-file';

const FILES = [
  {
    path: 'a.gcode',
    state: 'read',
    annotated_time_s: 3600.4,
    time_s: 3500,
    filament_g: 12.3456,
    filament_mm: 4123.4,
  },
  {
    path: 'b.gcode',
    state: 'read',
    annotated_time_s: null,
    time_s: 1799.5,
    filament_g: null,
    filament_mm: 900,
  },
  {
    path: 'c.gcode',
    state: 'reading',
    annotated_time_s: 10,
    time_s: 10,
    filament_g: 1,
    filament_mm: 1,
  },
] as unknown as Parameters<typeof fromFile>[0];

const print = (more: object) =>
  ({ toolpath: 'a.gcode', filament_g: null, filament_m: null, ...more }) as never;

describe('what a sliced file says of its print', () => {
  it('is how long it takes: by its own word, else as it was reckoned', () => {
    expect(fromFile(FILES, 'a.gcode')).toEqual({ estimate_s: 3600 });
    expect(fromFile(FILES, 'b.gcode')).toEqual({ estimate_s: 1800 });
  });

  it('is nothing where it is not read yet, or there is none', () => {
    for (const path of ['c.gcode', 'd.gcode', null, undefined]) {
      expect(fromFile(FILES, path)).toEqual({});
      expect(filamentOf(FILES, print({ toolpath: path }))).toEqual({});
    }
  });

  it('is its filament, where nobody has weighed it', () => {
    expect(filamentOf(FILES, print({}))).toEqual({
      filament_g: 12.35,
      filament_from: 'file',
      filament_m: 4.123,
    });
    expect(filamentOf(FILES, print({ filament_g: 13 }))).toEqual({ filament_m: 4.123 });
    expect(filamentOf(FILES, print({ filament_g: 13, filament_m: 4 }))).toEqual({});
    expect(filamentOf(FILES, print({ toolpath: 'b.gcode' }))).toEqual({ filament_m: 0.9 });
  });

  it('is the part that was made of a print that failed, and follows its progress', () => {
    const failed = { outcome: 'failed', progress_pct: 40 };
    expect(filamentOf(FILES, print({}), failed)).toEqual({
      filament_g: 4.94,
      filament_from: 'file',
      filament_m: 1.649,
    });
    expect(filamentOf(FILES, print({}), { ...failed, outcome: 'success' }).filament_g).toBe(12.35);
    expect(filamentFollows(FILES, print({}), 'progress_pct', failed).filament_g).toBe(4.94);
    // What was weighed stays as it was weighed.
    const weighed = { ...failed, filament_from: 'weighed' };
    expect(filamentFollows(FILES, print({}), 'progress_pct', weighed)).toEqual({});
    expect(filamentFollows(FILES, print({}), 'filament_g', { filament_g: 5 })).toEqual({
      filament_from: 'weighed',
    });
    expect(filamentFollows(FILES, print({}), 'noise_db', { noise_db: 48 })).toEqual({
      noise_distance_m: 1,
    });
  });
});
