import { X509Certificate } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import { certificateFor } from './certificate';

const folder = mkdtempSync(join(tmpdir(), 'doors-'));
afterAll(() => rmSync(folder, { recursive: true }));

describe('the certificate', () => {
  it('of our own is made once for all names and addresses, and kept for nobody else to read', async () => {
    const names = new Set(['bench.example', '192.0.2.7', '[2001:db8::7]']);
    const made = await certificateFor({}, folder, names);
    const known = new X509Certificate(made.cert);
    expect([
      known.checkHost('bench.example'),
      known.checkIP('192.0.2.7'),
      known.checkHost('localhost'),
    ]).toEqual(['bench.example', '192.0.2.7', 'localhost']);
    expect(made).toMatchObject({ isOwn: true, fingerprint: known.fingerprint256 });
    expect(statSync(join(folder, 'key.pem')).mode & 0o077).toBe(0);
    expect((await certificateFor({}, folder, names)).fingerprint).toBe(made.fingerprint);
    const more = await certificateFor({}, folder, new Set([...names, 'rack.example']));
    expect(more.fingerprint).not.toBe(made.fingerprint);
  });

  it('that is given is used, and what cannot be read is named', async () => {
    const [cert, key] = [join(folder, 'certificate.pem'), join(folder, 'key.pem')];
    const given = await certificateFor({ TLS_CERT: cert, TLS_KEY: key }, '/nowhere', new Set());
    expect(given).toMatchObject({
      isOwn: false,
      fingerprint: new X509Certificate(readFileSync(cert)).fingerprint256,
    });
    const ask = (env: Record<string, string>) => certificateFor(env, folder, new Set());
    await expect(ask({ TLS_CERT: cert })).rejects.toThrow('belong together');
    await expect(ask({ TLS_CERT: '/no/such.pem', TLS_KEY: key })).rejects.toThrow(
      'TLS_CERT is /no/such.pem',
    );
    writeFileSync(join(folder, 'other.pem'), 'no certificate');
    await expect(ask({ TLS_CERT: join(folder, 'other.pem'), TLS_KEY: key })).rejects.toThrow(
      'no certificate in PEM',
    );
  });
});
