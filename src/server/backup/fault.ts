import { WrongInputError } from '../../core/model/faults';
/** A backup cannot be made or used; the message says why and what to do. */
export class BackupError extends WrongInputError {
  override name = 'BackupError';
}
