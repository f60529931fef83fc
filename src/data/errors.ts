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
