/** The grades of a finding, as every inspector means them. */
export const GRADES = [
  { grade: 0, word: 'none', meaning: 'looked for, and not there' },
  { grade: 1, word: 'trace', meaning: 'found only when searched for' },
  { grade: 2, word: 'slight', meaning: 'seen at arm’s length' },
  { grade: 3, word: 'marked', meaning: 'catches the eye' },
  { grade: 4, word: 'severe', meaning: 'the part would be rejected' },
] as const;
