/** A path of this application, as it is or `/`: what leads elsewhere leads home. */
export function localPath(path: string | null): string {
  if (path === null || !/^\/(?![/\\])/.test(path)) return '/';
  try {
    const base = 'http://here.invalid';
    const url = new URL(path, base);
    // Dots are resolved by now: `/..//host` has become `//host`, which leads elsewhere.
    const isHere = url.origin === base && !/^\/[/\\]/.test(url.pathname);
    return isHere ? url.pathname + url.search + url.hash : '/';
  } catch {
    return '/';
  }
}
