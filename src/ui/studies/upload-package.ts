import { ApiError, failureText } from '../kit/request';
import { upload } from '../kit/upload';

/** A fault of a package, as the server names it. */
export interface ImportFault {
  file: string;
  line: number;
  column: string;
  message: string;
}

/** What the server says of a package. */
export interface ImportAnswer {
  study_id?: string;
  /** Studies that came from a package of the same name before. */
  alike?: { study_id: string; title: string }[];
  detail?: string;
  faults?: ImportFault[];
  fault_count?: number;
}

/**
 * Sends a package; tells what share has been sent.
 *
 * @param key by which it is known when it is sent again, so that it becomes one study
 * @returns the study that it became, or what is wrong with it
 * @throws Error where nobody could say; nothing was imported then
 */
export async function uploadPackage(
  content: Blob,
  key: string,
  onProgress: (share: number) => void,
  signal: AbortSignal,
): Promise<ImportAnswer> {
  try {
    return await upload<ImportAnswer>('/imports', content, {
      headers: { 'idempotency-key': key },
      onSent: (bytes) => onProgress(bytes / Math.max(1, content.size)),
      signal,
    });
  } catch (error) {
    if (error instanceof ApiError) {
      return { detail: error.message, ...(error.answer as ImportAnswer | null) };
    }
    const reason = signal.aborted ? 'Cancelled.' : failureText(error);
    throw new Error(`${reason} Nothing was imported.`, { cause: error });
  }
}
