/** Fewest characters of a password, as a person counts them. */
export const FEWEST_CHARACTERS = 12;
/** Most bytes of one: longer ones would only cost time. */
const MOST_BYTES = 1024;

/**
 * What is wrong with a password; null for nothing. Length and being unknown are what counts, not which kinds
 * of characters it has (NIST SP 800-63B, 5.1.1.2).
 *
 * @param about words that everybody here knows: the person's name, the product's
 * @param isCommon whether a text, in small letters, is among the common ones
 */
export function passwordFault(
  password: string,
  about: readonly string[],
  isCommon: (text: string) => boolean,
): string | null {
  const plain = password.normalize('NFKC');
  const characters = [...new Intl.Segmenter('en', { granularity: 'grapheme' }).segment(plain)].map(
    ({ segment }) => segment,
  );
  if (characters.length < FEWEST_CHARACTERS) {
    return `A password has at least ${FEWEST_CHARACTERS} characters; several words in a row are easy to keep.`;
  }
  if (new TextEncoder().encode(plain).length > MOST_BYTES) return 'The password is too long.';
  const small = plain.toLowerCase();
  // `passwordpassword` and `password1234` are no better than `password`.
  const bare = small.replace(/[^\p{L}]+$/u, '').replace(/^[^\p{L}]+/u, '');
  if (isCommon(small) || isCommon(bare) || isCommon(period(small))) {
    return 'This password is one of the first that attackers try. Use several unrelated words.';
  }
  if (new Set(characters).size < 5) return 'The password repeats a few characters.';
  const known = about.map((word) => word.toLowerCase()).filter((word) => word.length >= 4);
  if (known.some((word) => small.replaceAll(word, '').length < 6)) {
    return 'The password is little more than a name that people here know. Use several unrelated words.';
  }
  return null;
}

/** The shortest text that this one is a repetition of. */
function period(text: string): string {
  const at = (text + text).indexOf(text, 1);
  return at < text.length ? text.slice(0, at) : text;
}
