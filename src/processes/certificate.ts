import { X509Certificate } from 'node:crypto';
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { isIP } from 'node:net';
import { join } from 'node:path';

/** What a server speaks TLS by. */
export interface Certificate {
  key: string | Buffer;
  cert: string | Buffer;
  /** SHA-256 of the certificate, as browsers show it. */
  fingerprint: string;
  /** Whether it is one of our own, that nobody vouches for. */
  isOwn: boolean;
}

const DAYS = 397;
/** One of our own is made anew when it has so many days left. */
const RENEW_DAYS = 30;

const fingerprintOf = (cert: string | Buffer): string => new X509Certificate(cert).fingerprint256;

/** Reads the certificate that was given. @throws Error that names the file */
function readGiven(certFile: string, keyFile: string): Certificate {
  const read = (name: string, file: string) => {
    try {
      return readFileSync(file);
    } catch {
      throw new Error(`${name} is ${file}: there is no such file to read.`);
    }
  };
  const cert = read('TLS_CERT', certFile);
  const key = read('TLS_KEY', keyFile);
  try {
    return { cert, key, fingerprint: fingerprintOf(cert), isOwn: false };
  } catch {
    throw new Error(`TLS_CERT is ${certFile}: this is no certificate in PEM.`);
  }
}

/** The kept certificate of our own; null where there is none, it is soon over, or lacks a name. */
function readOwn(folder: string, names: Iterable<string>): Certificate | null {
  try {
    const cert = readFileSync(join(folder, 'certificate.pem'));
    const key = readFileSync(join(folder, 'key.pem'));
    const known = new X509Certificate(cert);
    const left = Date.parse(known.validTo) - Date.now();
    const lacks = [...names].some(
      (name) => !(isIP(name) ? known.checkIP(name) : known.checkHost(name)),
    );
    if (left < RENEW_DAYS * 86_400_000 || lacks) return null;
    return { cert, key, fingerprint: known.fingerprint256, isOwn: true };
  } catch {
    return null;
  }
}

/**
 * The certificate that the server speaks TLS by: the given one, or one of our own that is made once and kept.
 *
 * @param folder where one of our own is kept
 * @param names names and addresses that it is for
 * @throws Error that says what to change
 */
export async function certificateFor(
  env: NodeJS.ProcessEnv,
  folder: string,
  names: ReadonlySet<string>,
): Promise<Certificate> {
  if (env.TLS_CERT || env.TLS_KEY) {
    if (!env.TLS_CERT || !env.TLS_KEY)
      throw new Error('TLS_CERT and TLS_KEY belong together: set both.');
    return readGiven(env.TLS_CERT, env.TLS_KEY);
  }
  const all = ['localhost', '127.0.0.1', '::1', ...names].map((name) =>
    name.replace(/^\[|\]$/g, ''),
  );
  const own = readOwn(folder, all);
  if (own) return own;
  const { generate } = await import('selfsigned');
  const made = await generate([{ name: 'commonName', value: all[3] ?? 'localhost' }], {
    keyType: 'ec',
    algorithm: 'sha256',
    notAfterDate: new Date(Date.now() + DAYS * 86_400_000),
    extensions: [
      {
        name: 'subjectAltName',
        altNames: [...new Set(all)].map((name) =>
          isIP(name) ? { type: 7 as const, ip: name } : { type: 2 as const, value: name },
        ),
      },
    ],
  });
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  writeFileSync(join(folder, 'key.pem'), made.private, { mode: 0o600 });
  writeFileSync(join(folder, 'certificate.pem'), made.cert);
  return { cert: made.cert, key: made.private, fingerprint: fingerprintOf(made.cert), isOwn: true };
}
