/**
 * Compiled code that is kept in the sources, as base64; null where this place may not compile, or does
 * not know its instructions: there everything is done in the plain way.
 */
export function compiledCode(code: string): WebAssembly.Module | null {
  try {
    return new WebAssembly.Module(Uint8Array.from(atob(code), (byte) => byte.charCodeAt(0)));
  } catch {
    return null;
  }
}
