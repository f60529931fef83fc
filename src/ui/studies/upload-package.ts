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
  detail?: string;
  faults?: ImportFault[];
  fault_count?: number;
}

/**
 * Sends a package; tells what share has been sent.
 *
 * @param key by which it is known when it is sent again, so that it becomes one study
 */
export function uploadPackage(
  content: Blob,
  key: string,
  onProgress: (share: number) => void,
): { answer: Promise<ImportAnswer>; cancel: () => void } {
  // XMLHttpRequest, because fetch does not tell how much has been sent.
  const request = new XMLHttpRequest();
  const answer = new Promise<ImportAnswer>((resolve, reject) => {
    request.open('PUT', '/api/v1/imports');
    request.setRequestHeader('content-type', 'application/octet-stream');
    request.setRequestHeader('idempotency-key', key);
    request.upload.onprogress = (event) => onProgress(event.loaded / Math.max(1, event.total));
    request.upload.onload = () => onProgress(1);
    request.onload = () => {
      try {
        resolve(JSON.parse(request.responseText) as ImportAnswer);
      } catch {
        reject(new Error('The server’s answer cannot be read.'));
      }
    };
    request.onerror = () => reject(new Error('The server does not answer. Nothing was imported.'));
    request.onabort = () => reject(new Error('Cancelled. Nothing was imported.'));
    request.send(content);
  });
  return { answer, cancel: () => request.abort() };
}
