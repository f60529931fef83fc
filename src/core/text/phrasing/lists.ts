/** `a, b and c`. */
export const listed = (names: readonly string[]): string =>
  names.length < 2 ? names.join('') : `${names.slice(0, -1).join(', ')} and ${names.at(-1)}`;

/** A sentence begins with a capital letter. */
export const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);
