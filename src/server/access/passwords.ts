import { hash, verify } from '@node-rs/argon2';
import { passwordFault } from '../../core/model/access';
import { RequestError } from '../http/problem';

/** Argon2id as OWASP asks for at least: 19 MiB, two passes, one lane. */
const COST = { memoryCost: 19_456, timeCost: 2, parallelism: 1 } as const;

let common: Promise<ReadonlySet<string>> | null = null;

/** The passwords that are tried first, some fifty thousand. */
function commonPasswords(): Promise<ReadonlySet<string>> {
  common ??= import('@zxcvbn-ts/language-common').then(
    ({ dictionary }) => new Set(dictionary['passwords-common']?.map(String)),
  );
  return common;
}

/** What is kept of a password. @throws RequestError where it is none that may be taken */
export async function hashPassword(password: string, about: readonly string[]): Promise<string> {
  const known = await commonPasswords();
  const fault = passwordFault(password, [...about, 'vergleich'], (text) => known.has(text));
  if (fault !== null) throw new RequestError(422, fault);
  return hash(password.normalize('NFKC'), COST);
}

/** A hash that no password leads to: who is not there takes as long as who is. */
let nobody: Promise<string> | null = null;

/** Whether a password is the one of a hash; nobody's takes as long. */
export async function isPassword(known: string | null, password: string): Promise<boolean> {
  nobody ??= hash('no one signs in with this', COST);
  const isRight = await verify(known ?? (await nobody), password.normalize('NFKC')).catch(
    () => false,
  );
  return known !== null && isRight;
}
