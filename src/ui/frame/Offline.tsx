import { useEffect } from 'react';
import { WRITTEN_EVENT } from '../kit/request';

const AFTER_ENTRIES_MS = 1500;

const isBuilt = (address: string): boolean => new URL(address).pathname.startsWith('/_astro/');

/**
 * Has the browser keep the pages of the bench, so that they open while the server is away. Browsers allow that on
 * this computer and over TLS that they trust; elsewhere the page is as it is.
 */
export function Offline({ build }: { build: string }) {
  useEffect(() => {
    if (!('serviceWorker' in navigator)) return undefined;
    const { serviceWorker } = navigator;
    const keep = (addresses: readonly string[]) =>
      serviceWorker.controller?.postMessage({ addresses });
    // Of what had come, and of what comes: what was on its way at that moment was asked for too early to be kept,
    // and comes too late to be in a list that is made then.
    const observer = new PerformanceObserver((come) => {
      const built = come
        .getEntries()
        .map(({ name }) => name)
        .filter(isBuilt);
      if (built.length > 0) keep(built);
    });
    /** What this page is made of was asked for before there was anybody to keep it. */
    const tell = () => {
      keep([location.href]);
      observer.observe({ type: 'resource', buffered: true });
    };
    serviceWorker.addEventListener('message', tell);
    // What was entered since stands on the page that is kept: it is kept anew after a burst of entries.
    let timer: ReturnType<typeof setTimeout> | undefined;
    const keepAnew = () => {
      clearTimeout(timer);
      timer = setTimeout(() => {
        keep([location.href]);
      }, AFTER_ENTRIES_MS);
    };
    window.addEventListener(WRITTEN_EVENT, keepAnew);
    // Where it is not let in, nothing is kept.
    serviceWorker.register(`/offline.js?build=${build}`).catch(() => undefined);
    return () => {
      clearTimeout(timer);
      observer.disconnect();
      serviceWorker.removeEventListener('message', tell);
      window.removeEventListener(WRITTEN_EVENT, keepAnew);
    };
  }, [build]);
  return null;
}

/** Lets go of every page that is kept: whoever signs out leaves nothing. */
export async function forgetPages(): Promise<void> {
  if (!('caches' in globalThis)) return;
  for (const name of await caches.keys()) await caches.delete(name);
}
