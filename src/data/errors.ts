import { codeOf } from '../core/model/faults';
import { BaseError, ConnectionAcquireTimeoutError, ConnectionError } from 'sequelize';

/** What was asked for is not there. */
export class NotFoundError extends Error {
  override name = 'NotFoundError';
}

/** Somebody else has changed the record in the meantime; `current` is how it stands now. */
export class ConflictError extends Error {
  override name = 'ConflictError';
  constructor(
    message: string,
    readonly current: unknown,
  ) {
    super(message);
  }
}

/** The change cannot be made as the data stand: a row that is named is missing, or is in use. */
export class RefusedError extends Error {
  override name = 'RefusedError';
  constructor(
    message: string,
    /** What else the answer says: a proposal, the columns that are meant. */
    readonly details: Readonly<Record<string, unknown>> = {},
  ) {
    super(message);
  }
}

/** What the driver said, where an error of the models tells of one. */
export const causeOf = (error: Error): Error =>
  'original' in error && error.original instanceof Error ? error.original : error;

/** Codes of a disk that is full: PostgreSQL's own, and the system's. */
const FULL: ReadonlySet<string> = new Set(['53100', 'ENOSPC', 'EDQUOT']);

/** Whether an error says that a disk is full: the database's, or that of this computer. */
export function isDiskFull(error: unknown): boolean {
  if (!(error instanceof Error)) return false;
  return [error, causeOf(error)].some((one) => FULL.has(codeOf(one) ?? ''));
}

/** Codes with which PostgreSQL ends connections, or does not take them: it is stopping or starting. */
const AWAY = /^(?:08|57P0[1-3]|53300)/;

/** What the driver says of a connection that broke, now or before it was asked something. */
const BROKEN = /Connection terminated|connection error and is not queryable/;

/** Whether an error says that the database cannot be reached at the moment: an error of the models or of the driver. */
export function isDatabaseAway(error: unknown): boolean {
  if (!(error instanceof Error)) return false;
  if (error instanceof ConnectionError || error instanceof ConnectionAcquireTimeoutError)
    return true;
  const original = causeOf(error);
  // Errors of a driver have a code of five letters or figures, or that of a socket; others of ours have none.
  const isOfDatabase =
    error instanceof BaseError || 'severity' in error || BROKEN.test(error.message);
  const code = codeOf(original) ?? '';
  const isOfSocket = /^(?:ECONNREFUSED|ECONNRESET|EPIPE|ENOTFOUND|ETIMEDOUT)$/.test(code);
  return isOfDatabase && (AWAY.test(code) || isOfSocket || BROKEN.test(original.message));
}
