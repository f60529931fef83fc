const KEY = 'vergleich.operator';

/** The initials of who works at this browser; empty where nobody has said. */
export function readOperator(): string {
  try {
    return localStorage.getItem(KEY) ?? '';
  } catch {
    return '';
  }
}

/** Keeps the initials of who works at this browser. */
export function keepOperator(name: string): void {
  try {
    localStorage.setItem(KEY, name.trim());
  } catch {
    // A browser without storage asks again on the next page.
  }
}
