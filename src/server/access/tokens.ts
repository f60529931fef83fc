import { createHash, randomBytes } from 'node:crypto';

/** A secret of 256 random bits, as it is given away once; only its hash is kept. */
export const newToken = (): string => randomBytes(32).toString('base64url');

/** What is kept of a secret. It is random: a plain hash is as hard to turn back as it is. */
export const hashOf = (token: string): Buffer => createHash('sha256').update(token).digest();

/** Whether a text can be a secret of ours at all. */
export const isToken = (text: string): boolean => /^[A-Za-z0-9_-]{43}$/.test(text);
