/** What a caught error says; what was thrown and is no error is put into words. */
export const messageOf = (error: unknown): string =>
  error instanceof Error ? error.message : String(error);

/** The code that the system or a driver gives an error; null where it has none. */
export function codeOf(error: unknown): string | null {
  if (!(error instanceof Error) || !('code' in error)) return null;
  const { code } = error;
  return typeof code === 'string' || typeof code === 'number' ? String(code) : null;
}
