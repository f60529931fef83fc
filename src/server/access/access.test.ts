import { describe, expect, it } from 'vitest';
import { bareHost, readDoors } from '../network/doors';
import { localPath } from './local-path';
import { wantedBy } from './rules';
import { hashOf, isToken, newToken } from './tokens';

describe('where a sign-in leads', () => {
  it.each([
    ['/studies/1/runs?x=1#a', '/studies/1/runs?x=1#a'],
    [null, '/'],
    ['', '/'],
    ['https://elsewhere.example/', '/'],
    ['//elsewhere.example/', '/'],
    ['/\\elsewhere.example/', '/'],
    ['javascript:alert(1)', '/'],
    ['/\t/elsewhere.example', '/'],
    ['/..//elsewhere.example/', '/'],
    ['/a/..//elsewhere.example', '/'],
    ['/%2e%2e//elsewhere.example', '/'],
    ['/a/../studies', '/studies'],
  ])('%s is %s', (asked, led) => {
    expect(localPath(asked)).toBe(led);
  });
});

describe('doors', () => {
  it('are shut unless they are said to be open: no name but loopback', () => {
    const shut = readDoors({});
    expect([shut.isOpen, shut.isSecure, shut.names.size]).toEqual([false, false, 0]);
  });

  it('that are open speak TLS, and know the names that they were told', () => {
    const open = readDoors({
      OPEN_DOORS: '1',
      ALLOWED_HOSTS: 'Bench.example, rack:4680',
      PUBLIC_URL: 'https://prints.example:8443/',
    });
    expect([open.isOpen, open.isSecure, open.publicUrl]).toEqual([
      true,
      true,
      'https://prints.example:8443',
    ]);
    for (const name of ['bench.example', 'rack', 'prints.example'])
      expect(open.names).toContain(name);
    expect(readDoors({ OPEN_DOORS: '1', PLAIN_HTTP: '1' }).isSecure).toBe(false);
    expect(readDoors({ TRUST_PROXY: '1', PUBLIC_URL: 'https://prints.example' }).isSecure).toBe(
      true,
    );
  });

  it.each([
    [{ PUBLIC_URL: 'prints.example' }, 'PUBLIC_URL'],
    [{ PUBLIC_URL: 'https://prints.example/path' }, 'PUBLIC_URL'],
    [{ TRUST_PROXY: 'yes' }, 'TRUST_PROXY'],
  ])('%j are refused by name', (env, words) => {
    expect(() => readDoors(env)).toThrow(words);
  });

  it.each([
    ['Bench.Example:4680', 'bench.example'],
    ['[fe80::1]:80', '[fe80::1]'],
    ['192.0.2.7', '192.0.2.7'],
  ])('%s is %s', (host, bare) => {
    expect(bareHost(host)).toBe(bare);
  });
});

describe('what an address wants', () => {
  it.each([
    ['/api/v1/studies', 'HEAD', 'see'],
    ['/api/v1/studies', 'DELETE', 'edit'],
    ['/api/v1/not/in/the/table', 'GET', 'own'],
    ['/studies/[study]/runs', 'GET', 'see'],
    ['/people', 'GET', 'own'],
    ['/sign-in', 'GET', 'nothing'],
  ])('%s %s: %s', (pattern, method, wanted) => {
    expect(wantedBy(pattern, method, {})).toBe(wanted);
  });

  it('of a table is what is done at the bench, or more', () => {
    const of = (table: string) =>
      wantedBy('/api/v1/studies/[study]/rows/[table]', 'POST', { table });
    expect([of('inspections'), of('machines'), of('no-such-table')]).toEqual([
      'enter',
      'edit',
      'edit',
    ]);
  });
});

describe('a secret', () => {
  it('has 256 random bits, and is kept as its SHA-256', () => {
    const made = new Set(Array.from({ length: 100 }, newToken));
    expect(made.size).toBe(100);
    for (const token of made)
      expect([isToken(token), Buffer.from(token, 'base64url').length]).toEqual([true, 32]);
    // FIPS 180-2, appendix B.1.
    expect(hashOf('abc').toString('hex')).toBe(
      'ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad',
    );
  });
});
