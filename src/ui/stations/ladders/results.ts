/** What a step can turn out as: the key that says it, its sign and word. */
export const STEP_RESULTS = [
  { result: 'clear', key: 'c', sign: '●', word: 'clear' },
  { result: 'effort', key: 'e', sign: '◐', word: 'with effort' },
  { result: 'fail', key: 'f', sign: '○', word: 'fails' },
  { result: 'broken', key: 'b', sign: '✕', word: 'broken' },
  { result: 'untested', key: 'u', sign: '·', word: 'not tested' },
] as const;
