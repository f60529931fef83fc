/** A backup cannot be made or used; the message says why and what to do. */
export class BackupError extends Error {
  override name = 'BackupError';
}
