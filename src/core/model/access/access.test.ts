import { describe, expect, it } from 'vitest';
import { handedOnBy, may, passwordFault, RIGHTS, ROLES } from '.';

describe('roles', () => {
  it('may what the house says', () => {
    const table = Object.fromEntries(
      ROLES.map((role) => [role, RIGHTS.filter((right) => may(role, right)).join(' ')]),
    );
    expect(table).toEqual({
      owner: 'see export enter edit delete own',
      evaluator: 'see export enter edit',
      operator: 'see enter',
      reader: 'see export',
    });
  });

  it('hand on no more than they have, and never the owner’s', () => {
    expect(handedOnBy('owner')).toEqual(['evaluator', 'operator', 'reader']);
    expect(handedOnBy('evaluator')).toEqual(['evaluator', 'operator', 'reader']);
    expect(handedOnBy('operator')).toEqual(['operator']);
    expect(handedOnBy('reader')).toEqual(['reader']);
  });
});

describe('a password', () => {
  const common = new Set(['password', 'qwerty', 'iloveyou', 'passwordpassword']);
  const fault = (text: string, about: string[] = []) =>
    passwordFault(text, about, (one) => common.has(one));

  it.each(['caliper on a cold bench', 'ünterwegs mit 3 Mühlen', 'kQ9!vv-tr2Lmx', 'kQ9!vv-tr2Lm'])(
    '“%s” will do',
    (text) => {
      expect(fault(text)).toBeNull();
    },
  );

  it.each([
    ['short', 'at least 12 characters'],
    ['12345678901', 'at least 12 characters'],
    // Twelve code points, three characters.
    ['👩‍👩‍👧👩‍👩‍👧👩‍👩‍👧', 'at least 12 characters'],
    ['password1234', 'one of the first that attackers try'],
    ['PASSWORD!!!!!', 'one of the first that attackers try'],
    ['qwertyqwertyqwerty', 'one of the first that attackers try'],
    ['aaaaaaaaaaaabb', 'repeats'],
    ['a'.repeat(700) + 'ébcd'.repeat(200), 'too long'],
  ])('“%s” will not', (text, words) => {
    expect(fault(text)).toContain(words);
  });

  it('says more than a name that everybody knows', () => {
    expect(fault('vergleich2026', ['Vergleich', 'Kim'])).toContain('a name that people here know');
    expect(fault('tessa.martin!', ['Tessa.Martin'])).toContain('a name that people here know');
    expect(fault('kim bakes lopsided bread', ['Kim'])).toBeNull();
  });

  it('is the same however its letters are composed', () => {
    expect(fault('pássword'.normalize('NFD') + '12345')).toBe(
      fault('pássword'.normalize('NFC') + '12345'),
    );
  });
});
