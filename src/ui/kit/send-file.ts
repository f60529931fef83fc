import { ApiError, callApi, UnreachableError } from './request';
import { upload } from './upload';

/** Bytes that are sent in one request: what a broken connection can cost at most. */
const PART_BYTES = 16 * 1024 * 1024;
const WAIT_MS = 2000;
const MOST_WAITS = 150;

type Arrival = { path: string; isKnown: boolean } | { received: number };

/**
 * Sends a file, part by part; what has arrived is not sent again after a broken connection.
 *
 * @param base where files of its kind are announced; their bytes go to `uploads/` below it
 * @param told facts of the file: they are kept in the same action as the file
 * @returns its path in the study, and whether it was there before
 */
export async function sendFile(
  base: string,
  file: File,
  sha256: string,
  onShare: (share: number, isWaiting: boolean) => void,
  signal: AbortSignal,
  told?: object,
): Promise<{ path: string; isKnown: boolean }> {
  let waits = 0;
  for (;;) {
    try {
      let arrival = await callApi<Arrival>('POST', base, {
        name: file.name,
        bytes: file.size,
        sha256,
        ...(told && { told }),
      });
      while ('received' in arrival) {
        signal.throwIfAborted();
        onShare(arrival.received / file.size, false);
        arrival = await sendPart(
          `${base}/uploads/${sha256}`,
          file,
          arrival.received,
          onShare,
          signal,
        );
        waits = 0;
      }
      return arrival;
    } catch (error) {
      if (signal.aborted) {
        await callApi('DELETE', `${base}/uploads/${sha256}`).catch(() => undefined);
        throw error;
      }
      const isBroken =
        error instanceof UnreachableError || (error instanceof ApiError && error.status >= 500);
      if (!isBroken || waits >= MOST_WAITS) throw error;
      waits += 1;
      onShare(0, true);
      await new Promise((resolve) => setTimeout(resolve, WAIT_MS));
    }
  }
}

/** Sends one part of a file. */
function sendPart(
  address: string,
  file: File,
  offset: number,
  onShare: (share: number, isWaiting: boolean) => void,
  signal: AbortSignal,
): Promise<Arrival> {
  const part = file.slice(offset, Math.min(file.size, offset + PART_BYTES));
  return upload<Arrival>(`${address}?offset=${offset}`, part, {
    onSent: (bytes) => onShare((offset + bytes) / file.size, false),
    signal,
  });
}
