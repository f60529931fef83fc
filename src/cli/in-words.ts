import { BackupError } from '../server/backup/fault';
import { InputError } from './input-error';

/** What cannot be done with a backup is said, and nothing else. */
export function inWords(error: unknown): never {
  throw error instanceof BackupError ? new InputError(error.message) : error;
}
