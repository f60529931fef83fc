import { describe, expect, it } from 'vitest';
import { dueEvery, hasRoom, leftOver, type KeptFile } from '.';

const at = (when: string): KeptFile => ({ name: when, at: Date.parse(when) });
const namesOf = (files: readonly KeptFile[]) => files.map(({ name }) => name);
/** One at noon of each of some days up to the 26th of November 2026, a Thursday. */
const daily = (days: number): KeptFile[] =>
  Array.from({ length: days }, (_, back) =>
    at(new Date(Date.UTC(2026, 10, 26 - back, 12)).toISOString()),
  );

describe('room for a backup', () => {
  it('is twice the database, and not a byte less', () => {
    expect([hasRoom(2_000, 1_000), hasRoom(1_999, 1_000)]).toEqual([true, false]);
  });
});

describe('backups', () => {
  it('are kept of seven days and four weeks', () => {
    const files = daily(60);
    const kept = namesOf(files.filter((file) => !leftOver(files).includes(file)));
    expect(kept.map((name) => name.slice(0, 10))).toEqual([
      '2026-11-26',
      '2026-11-25',
      '2026-11-24',
      '2026-11-23',
      '2026-11-22',
      '2026-11-21',
      '2026-11-20',
      // The Sundays before: the week of the 26th and that of the 22nd are among the days.
      '2026-11-15',
      '2026-11-08',
    ]);
  });

  it('of one day are the last of it', () => {
    const files = [
      at('2026-11-26T06:00:00Z'),
      at('2026-11-26T18:00:00Z'),
      at('2026-11-26T12:00:00Z'),
    ];
    expect(namesOf(leftOver(files))).toEqual(['2026-11-26T06:00:00Z', '2026-11-26T12:00:00Z']);
  });

  it('of a computer that was off for months are all kept', () => {
    const files = [
      at('2026-01-03T00:00:00Z'),
      at('2026-05-01T00:00:00Z'),
      at('2026-11-26T00:00:00Z'),
    ];
    expect(leftOver(files)).toEqual([]);
    expect(leftOver([])).toEqual([]);
  });

  it('begin a week on Monday', () => {
    // A Sunday and the Monday after it are of two weeks, though they are a day apart.
    const files = [...daily(7), at('2026-11-16T00:00:00Z'), at('2026-11-15T23:00:00Z')];
    expect(namesOf(leftOver(files))).toEqual(['2026-11-16T00:00:00Z']);
  });

  it.each([
    ['24h', 86_400_000],
    ['30m', 1_800_000],
    [' 2 d ', 172_800_000],
    ['10m', 600_000],
    ['9m', null],
    ['32d', null],
    ['daily', null],
    ['', null],
    ['1.5h', null],
    ['-2h', null],
  ])('are made every “%s”', (text, ms) => {
    expect(dueEvery(text)).toBe(ms);
  });
});
