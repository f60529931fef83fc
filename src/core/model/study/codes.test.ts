import { describe, expect, it } from 'vitest';
import { contenderMarks, fullRow, freeLetter, lettersOf, nextCodes, withOwnCodes } from '.';

describe('stickers', () => {
  it('pass over what is taken, in whatever case it is written', () => {
    expect(nextCodes(['K7-008', 'k7-010'], 2)).toEqual(['k7-011', 'k7-012']);
    expect(nextCodes(['K7-010', 'K7-009', 'other'], 2)).toEqual(['K7-011', 'K7-012']);
  });

  it('are on one part each: later parts get another, those without stay without', () => {
    const of = (...codes: (string | null)[]) =>
      codes.map((code, at) => ({ specimen_id: `s${at}`, code }));
    const { specimens, renamed } = withOwnCodes(of('K-1', 'k-1', null, 'K-1', 'K-1-2'));
    expect(specimens.map(({ code }) => code)).toEqual(['K-1', 'k-1-3', null, 'K-1-4', 'K-1-2']);
    expect(renamed.map(({ specimen_id, before }) => [specimen_id, before])).toEqual([
      ['s1', 'k-1'],
      ['s3', 'K-1'],
    ]);
    const single = of('A', 'B', null);
    expect(withOwnCodes(single)).toEqual({ specimens: single, renamed: [] });
  });
});

describe('letters of machines', () => {
  const contenders = [
    { contender_id: 'c-10', machine_id: 'm10' },
    { contender_id: 'c-2', machine_id: 'm2' },
    { contender_id: 'c-3', machine_id: 'm2' },
  ];
  const machine = (machine_id: string, letter: string | null = null) => ({ machine_id, letter });

  it('follow from ids, whatever the order of the rows', () => {
    const machines = [machine('m10'), machine('m2')];
    const letters = { m2: 'A', m10: 'B' };
    expect(Object.fromEntries(lettersOf(contenders, machines))).toEqual(letters);
    expect(
      Object.fromEntries(lettersOf([...contenders].reverse(), [...machines].reverse())),
    ).toEqual(letters);
  });

  it('stay as they were given, and others pass them over', () => {
    const letters = lettersOf(contenders, [machine('m10', 'A'), machine('m2')]);
    expect(Object.fromEntries(letters)).toEqual({ m10: 'A', m2: 'B' });
    expect(freeLetter(letters.values())).toBe('C');
    const marks = contenderMarks(
      contenders.map((row) => fullRow('contenders', { ...row, label: '', profile_id: 'p' })),
      [{ machine_id: 'm10', name: 'Ten', letter: 'D' }] as never,
      [],
    );
    expect(marks.map(({ letter, hue }) => [letter, hue])).toEqual([
      ['D', 3],
      ['A', 0],
      ['A′', 0],
    ]);
  });
});
