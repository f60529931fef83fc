/** A scanner's keys follow each other within this time; a hand's do not. */
export const SCANNER_MS = 45;

const MODIFIERS = new Set(['Shift', 'Control', 'Alt', 'Meta']);

let last = 0;
let waiting: ReturnType<typeof setTimeout> | undefined;

/**
 * Does what a key means, unless the key is one of a code that a scanner types: it waits for a moment
 * in which no other key comes.
 */
export function unlessScanned(event: KeyboardEvent, act: () => void): void {
  if (MODIFIERS.has(event.key)) return;
  clearTimeout(waiting);
  const isBurst = event.timeStamp - last < SCANNER_MS;
  last = event.timeStamp;
  if (!isBurst) waiting = setTimeout(act, SCANNER_MS);
}

/** How long a letter may stand alone before it is taken for a command. */
export const ALONE_MS = SCANNER_MS + 15;
