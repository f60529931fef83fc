/** What a study varies on purpose, in words. */
export const INTENT_WORDS: readonly (readonly [string, string])[] = [
  ['machines', 'machines, each at its own profile'],
  ['same-settings', 'machines at the same settings'],
  ['tuning', 'stock against tuned on the same machine'],
  ['before-after', 'one machine before and after one change'],
  ['crossed', 'machines × profiles'],
];
