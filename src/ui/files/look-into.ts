import type { FirstLook, LookMessage } from '../workers/first-look';

/** Looks into a file in a worker of the browser, without sending anything. */
export function lookInto(
  file: File,
  onShare: (share: number) => void,
  signal: AbortSignal,
): Promise<FirstLook> {
  const worker = new Worker(new URL('../workers/first-look.ts', import.meta.url), {
    type: 'module',
  });
  return new Promise<FirstLook>((resolve, reject) => {
    signal.addEventListener('abort', () => reject(new DOMException('given up', 'AbortError')));
    worker.onerror = () => reject(new Error('the file could not be read here'));
    worker.onmessage = (event: MessageEvent<LookMessage>) => {
      const message = event.data;
      if ('share' in message) onShare(message.share);
      else if ('look' in message) resolve(message.look);
      else reject(new Error(message.failed));
    };
    worker.postMessage(file);
  }).finally(() => worker.terminate());
}
