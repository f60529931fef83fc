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
}

/** Codes with which PostgreSQL ends connections, or does not take them: it is stopping or starting. */
const AWAY = /^(?:08|57P0[1-3]|53300)/;

/** Whether an error says that the database cannot be reached at the moment. */
export function isDatabaseAway(error: unknown): boolean {
  if (!(error instanceof BaseError)) return false;
  if (error instanceof ConnectionError || error instanceof ConnectionAcquireTimeoutError)
    return true;
  const { original } = error as BaseError & { original?: { code?: string; message?: string } };
  return (
    AWAY.test(original?.code ?? '') ||
    /^(?:ECONNREFUSED|ECONNRESET|EPIPE|ENOTFOUND|ETIMEDOUT)$/.test(original?.code ?? '') ||
    /Connection terminated/.test(original?.message ?? '')
  );
}
