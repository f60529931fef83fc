/**
 * What was given cannot be used: the base of every error that is not the program's. Its message says what is
 * wrong, where, and where it can be said what to do; it is meant to be read as it stands.
 */
export class WrongInputError extends Error {
  override name = 'WrongInputError';
  /**
   * @param what what is wrong
   * @param where where it is: a file, a line, a column
   * @param remedy what to do
   */
  constructor(
    readonly what: string,
    readonly where: string | null = null,
    readonly remedy: string | null = null,
  ) {
    super(`${where === null ? '' : `${where}: `}${what}${remedy === null ? '' : `: ${remedy}`}`);
  }
}

/** What a thread answers where it cannot do something with what it was given. */
export interface Refused {
  isRefused: true;
  /** Why, as the end of a sentence that begins with what was given. */
  message: string;
}

/** An outcome of a thread, which may have refused instead. */
export type OrRefused<Outcome> = (Outcome & { isRefused?: undefined }) | Refused;

/** A refusal with its reason. */
export const refused = (message: string): Refused => ({ isRefused: true, message });
