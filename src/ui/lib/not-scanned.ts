/** A scanner's keys follow each other within this time; a hand's do not. */
export const SCANNER_MS = 45;

const MODIFIERS = new Set(['Shift', 'Control', 'Alt', 'Meta']);

let last = -Infinity;
/** The key that is heard of now: several parts of a page hear of the same one. */
let present: KeyboardEvent | null = null;
/** What the last key means, as long as it is not known whether another one follows at once. */
let waiting: { act: () => void; timer: ReturnType<typeof setTimeout> } | null = null;

function settle(): void {
  const due = waiting;
  waiting = null;
  if (due) clearTimeout(due.timer);
  due?.act();
}

/** Whether a key may be a scanner's: it has no arrows, and holds none down. */
const isScannable = ({ key, repeat }: KeyboardEvent): boolean =>
  !repeat && (key.length === 1 || key === 'Enter');

/**
 * Does what a key means, unless the key is one of a code that a scanner types: it waits for a moment
 * in which no other key comes. When the page was busy for longer than that, the next key tells it too:
 * by when it was pressed, not by when it is heard of. What keys mean is done in the order of the keys.
 */
export function unlessScanned(event: KeyboardEvent, act: () => void): void {
  if (MODIFIERS.has(event.key)) return;
  const isHeardAgain = event === present;
  present = event;
  if (isHeardAgain && isScannable(event)) {
    const before = waiting;
    if (before) {
      const first = before.act;
      before.act = () => {
        first();
        act();
      };
    }
    return;
  }
  // One that is stamped long before the last one is of another clock, and follows nothing.
  const isBurst = !event.repeat && Math.abs(event.timeStamp - last) < SCANNER_MS;
  const isAfter = !isBurst && waiting !== null;
  if (isAfter) settle();
  if (isScannable(event)) {
    last = event.timeStamp;
    if (waiting) clearTimeout(waiting.timer);
    waiting = isBurst ? null : { act, timer: setTimeout(settle, SCANNER_MS) };
    return;
  }
  if (waiting) clearTimeout(waiting.timer);
  waiting = null;
  // What the key before it has done is on the page first.
  if (isAfter) setTimeout(act);
  else act();
}

/** How long a letter may stand alone before it is taken for a command. */
export const ALONE_MS = SCANNER_MS + 15;
