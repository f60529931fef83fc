import { operatorHeader, refusalOf, UnreachableError } from './request';

interface UploadOptions {
  headers?: Readonly<Record<string, string>>;
  /** Told how many bytes have left. */
  onSent: (bytes: number) => void;
  signal: AbortSignal;
}

/**
 * Puts bytes to the API and tells how far it is; an XMLHttpRequest, because `fetch` does not tell.
 *
 * @throws ApiError, UnreachableError, or an `AbortError` when the signal says so
 */
export function upload<Answer>(
  path: string,
  content: Blob,
  { headers, onSent, signal }: UploadOptions,
): Promise<Answer> {
  return new Promise((resolve, reject) => {
    const request = new XMLHttpRequest();
    request.open('PUT', `/api/v1${path}`);
    request.setRequestHeader('content-type', 'application/octet-stream');
    for (const [name, value] of Object.entries({ ...operatorHeader(), ...headers })) {
      request.setRequestHeader(name, value);
    }
    request.upload.onprogress = (event) => onSent(event.loaded);
    request.upload.onload = () => onSent(content.size);
    request.onerror = () => reject(new UnreachableError('The server does not answer.'));
    request.onabort = () => reject(new DOMException('given up', 'AbortError'));
    request.onload = () => {
      const answer = parsed(request.responseText);
      if (request.status < 300) resolve(answer as Answer);
      else reject(refusalOf(request.status, answer));
    };
    if (signal.aborted) request.abort();
    signal.addEventListener('abort', () => request.abort(), { once: true });
    request.send(content);
  });
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}
