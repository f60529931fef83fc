import { describe, expect, it } from 'vitest';
import { changesBetween, movedTies, writeFigure, type RevisionFigures } from '.';
import { inUnit, WORD, type PrintedFigure } from './figure';

const found = (
  value: number | null,
  low: number | null = null,
  high: number | null = null,
  word: string | null = null,
) => ({ value, low, high, word });

describe('a figure that was written on', () => {
  const moved = (then: ReturnType<typeof found>, now: ReturnType<typeof found> | null) =>
    movedTies([{ address: 'a:b:c', ...then }], () => now).map(({ why }) => why);

  it('stands while its value lies within what was known of it', () => {
    expect(moved(found(0.08, 0.06, 0.1), found(0.1, 0.09, 0.11))).toEqual([]);
    expect(moved(found(0.08, 0.06, 0.1), found(0.08, 0.01, 0.9))).toEqual([]);
    expect(moved(found(3), found(3))).toEqual([]);
  });

  it('has moved beyond its interval, without one by anything, and by its verdict', () => {
    expect(moved(found(0.08, 0.06, 0.1), found(0.101))).toEqual(['value']);
    expect(moved(found(3), found(4))).toEqual(['value']);
    expect(moved(found(0.05, 0, 0.1, 'better'), found(0.05, 0, 0.1, 'unsettled'))).toEqual([
      'verdict',
    ]);
    expect(moved(found(null, null, null, 'IT12'), found(null, null, null, 'IT11'))).toEqual([
      'verdict',
    ]);
    expect(moved(found(3), found(null))).toEqual(['value']);
    expect(moved(found(3), null)).toEqual(['value']);
  });
});

describe('what is different between two revisions', () => {
  const figure = (
    address: string,
    value: number,
    low: number,
    high: number,
    word: string | null = null,
  ): PrintedFigure => ({
    address,
    label: `what ${address} is`,
    value,
    low,
    high,
    word,
    style: 'value',
    factor: 1,
    digits: 2,
    unit: '',
    printed: value.toFixed(2),
  });
  const revision = (
    number: number,
    figures: PrintedFigure[],
    words: [string, string][],
    tables: Record<string, number>,
  ): RevisionFigures => ({
    format: 1,
    edition: 1,
    title: 'T',
    number,
    frozen_at: '2026-03-14T20:00:00Z',
    sentences: [],
    figures,
    evaluation: { alpha: 0.05, seed: 1, reference: 'R' },
    data: { sha256: `hash ${number}`, bytes: 1, tables, files: {} },
    words: words.map(([verdict_id, text]) => ({ verdict_id, kind: 'answer', text, rests_on: [] })),
  });
  const then = revision(
    1,
    [
      figure('a:x:m', 1, 0.9, 1.1),
      figure('a:y:m', 1, 0.9, 1.1, 'unsettled'),
      figure('a:z:m', 1, 0.9, 1.1),
    ],
    [
      ['s1', 'Take the first.'],
      ['s2', 'It is loud.'],
    ],
    { prints: 40, readings: 300 },
  );
  const now = revision(
    2,
    [
      figure('a:x:m', 1.05, 0.95, 1.15),
      figure('a:y:m', 1, 0.95, 1.05, 'better'),
      figure('a:w:m', 2, 1, 3),
    ],
    [
      ['s1', 'Take the second.'],
      ['s3', 'It is dear.'],
    ],
    { prints: 84, readings: 300 },
  );

  it('is in figures, words and data', () => {
    const changes = changesBetween(then, now);
    expect(changes.figures).toEqual([
      {
        address: 'a:y:m',
        label: 'what a:y:m is',
        then: '1.00 (unsettled)',
        now: '1.00 (better)',
        why: 'verdict',
      },
    ]);
    expect([changes.added, changes.gone]).toEqual([1, 1]);
    expect(changes.words).toEqual([
      { kind: 'changed', then: 'Take the first.', now: 'Take the second.' },
      { kind: 'gone', then: 'It is loud.', now: null },
      { kind: 'added', then: null, now: 'It is dear.' },
    ]);
    expect(changes.data).toEqual([{ table: 'prints', then: 40, now: 84 }]);
    expect(changes.isSameData).toBe(false);
  });

  it('counts what has no interval, and does not list it', () => {
    const count = (value: number): PrintedFigure => ({
      ...figure('a:c:n', value, 0, 0),
      low: null,
      high: null,
      printed: String(value),
    });
    const changes = changesBetween(
      { ...then, figures: [count(9)] },
      { ...now, figures: [count(14)] },
    );
    expect([changes.figures, changes.others]).toEqual([[], 1]);
  });

  it('is nothing between a revision and itself', () => {
    const changes = changesBetween(then, then);
    expect([changes.figures, changes.words, changes.data]).toEqual([[], [], []]);
    expect(changes.isSameData).toBe(true);
  });
});

describe('a figure as it is printed', () => {
  it.each([
    [found(0.0804), inUnit('mm', 3), '0.080 mm'],
    [found(0.93), inUnit('%', 0, 100), '93 %'],
    [found(-0.0004), inUnit('mm', 3), '0.000 mm'],
    [found(0.0251), inUnit('mm', 3, 1, 'signed'), '+0.025 mm'],
    [found(-0.06), inUnit('mm', 2, 1, 'size'), '0.06 mm'],
    // Half the time is a logarithm of −0.693.
    [found(-0.693147), inUnit('', 0, 1, 'ratio'), '50 % less'],
    [found(0.0953102), inUnit('', 0, 1, 'ratio'), '10 % more'],
    [found(1, 0.9, 1.1), inUnit('', 1, 1, 'ends'), '0.9 … 1.1'],
    [found(1, 1, 1), inUnit('', 1, 1, 'ends'), '1.0'],
    [found(1), inUnit('', 1, 1, 'ends'), 'not known'],
    [found(1, null, null, 'one_print'), WORD, 'one print'],
    [found(null, null, null, 'above'), inUnit('', 1), 'above'],
    [found(null), inUnit('', 1), 'not known'],
  ])('%o', (one, format, text) => expect(writeFigure(one, format)).toBe(text));
});
