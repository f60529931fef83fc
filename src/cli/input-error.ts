import { WrongInputError } from '../core/model/faults';
/** The input is wrong; the message says why, and the command ends with exit code 1. */
export class InputError extends WrongInputError {
  override name = 'InputError';
}
