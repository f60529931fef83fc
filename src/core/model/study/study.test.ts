import { describe, expect, it } from 'vitest';
import {
  fullRow,
  contenderMarks,
  instant,
  isInsidePath,
  isIsoTime,
  nextCodes,
  TABLE_NAMES,
  columnsOf,
  tableSpec,
} from '.';

describe('times', () => {
  it.each([
    ['2026-03-02T09:30:00+01:00', true],
    ['2026-03-02T09:30Z', true],
    ['2024-02-29T00:00:00.250-05:30', true],
    ['2026-02-29T00:00:00Z', false],
    ['1900-02-29T00:00:00Z', false],
    ['2026-13-01T00:00:00Z', false],
    ['2026-03-02T24:00:00Z', false],
    ['2026-03-02T09:30:00', false],
    ['2026-03-02', false],
    ['2026-03-02 09:30:00Z', false],
    ['2026-03-02T09:30:00+25:00', false],
  ])('%s', (text, expected) => {
    expect(isIsoTime(text)).toBe(expected);
  });

  it('of different offsets compare as instants', () => {
    expect(instant('2026-03-02T10:00:00+01:00')).toBe(instant('2026-03-02T09:00:00Z'));
    expect(instant('2026-03-02T10:00:00+0100')).toBe(instant('2026-03-02T09:00Z'));
  });
});

describe('paths', () => {
  it.each([
    ['photos/a.png', true],
    ['a', true],
    ['/etc/passwd', false],
    ['a/../../b', false],
    ['a\\b', false],
    ['c:/b', false],
    ['a//b', false],
    ['./a', false],
    ['', false],
  ])('%s', (path, expected) => {
    expect(isInsidePath(path)).toBe(expected);
  });
});

describe('sticker codes', () => {
  it('go on from the last one in its own writing', () => {
    expect(nextCodes(['K7-008', 'K7-009'], 2)).toEqual(['K7-010', 'K7-011']);
    expect(nextCodes(['plain', 'B-99'], 2)).toEqual(['B-100', 'B-101']);
    expect(nextCodes([], 1)).toEqual(['S-001']);
    expect(nextCodes(['K7-001'], 0)).toEqual([]);
  });
});

describe('badges', () => {
  it('give the same letter to the same machine, and fill the tuned', () => {
    const contender = (contender_id: string, machine_id: string, profile_id: string) =>
      fullRow('contenders', { contender_id, label: contender_id, machine_id, profile_id });
    const profile = (profile_id: string, kind: 'stock' | 'tuned') =>
      fullRow('profiles', { profile_id, name: profile_id, kind });
    const marks = contenderMarks(
      [contender('a', 'm1', 's'), contender('b', 'm2', 's'), contender('c', 'm1', 't')],
      [],
      [profile('s', 'stock'), profile('t', 'tuned')],
    );
    expect(marks.map((mark) => [mark.letter, mark.isTuned])).toEqual([
      ['A', false],
      ['B', false],
      ['A', true],
    ]);
    const many = Array.from({ length: 28 }, (_, at) => contender(`c${at}`, `m${at}`, 's'));
    expect(contenderMarks(many, [], []).at(-1)?.letter).toBe('AB');
  });

  it('of one machine and kind are told apart: two by a prime, more by numbers', () => {
    const rows = (count: number) =>
      Array.from({ length: count }, (_, at) =>
        fullRow('contenders', {
          contender_id: `c${at}`,
          label: `Machine at ${at}`,
          machine_id: 'm',
          profile_id: `p${at}`,
        }),
      );
    const machines = [{ machine_id: 'm', name: 'Machine' }] as never;
    const marksOf = (count: number) => contenderMarks(rows(count), machines, []);
    expect(marksOf(1).map(({ letter, variant }) => `${letter} ${variant}`)).toEqual(['A stock']);
    expect(marksOf(2).map(({ letter }) => letter)).toEqual(['A', 'A′']);
    expect(marksOf(3).map(({ letter, variant }) => `${letter} ${variant}`)).toEqual([
      'A1 at 0',
      'A2 at 1',
      'A3 at 2',
    ]);
  });
});

describe('tables', () => {
  it('have keys among their columns and name tables that are there', () => {
    for (const name of TABLE_NAMES) {
      const columns = columnsOf(name).map((column) => column.name);
      const spec = tableSpec(name);
      expect(columns).toEqual(expect.arrayContaining([...spec.key]));
      for (const reference of spec.references ?? []) {
        expect(TABLE_NAMES).toContain(reference.table);
      }
    }
  });
});
