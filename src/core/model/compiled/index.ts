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

/**
 * What compiled code offers, under the names and types that its source gives them.
 *
 * @param imports what the code asks for
 */
export const compiledExports = <Offered extends object>(
  module: WebAssembly.Module,
  imports: WebAssembly.Imports = {},
): Offered => {
  const offered: object = new WebAssembly.Instance(module, imports).exports;
  return offered as Offered;
};
