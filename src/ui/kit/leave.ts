import { writesUnderWay } from './request';

/** Never: whoever waits for it waits until the page has gone, and does nothing a second time meanwhile. */
const gone = (): Promise<never> => new Promise(() => undefined);

/** Goes to another page. */
export function goTo(address: string): Promise<never> {
  location.assign(address);
  return gone();
}

const LOOK_EVERY_MS = 100;

export type Field = HTMLInputElement | HTMLTextAreaElement | HTMLSelectElement;

export const isField = (element: unknown): element is Field =>
  element instanceof HTMLInputElement ||
  element instanceof HTMLTextAreaElement ||
  element instanceof HTMLSelectElement;

/**
 * Whether a field holds what somebody typed and did not save: it is marked with that (`frame/CarryOver`), and once
 * the page's own code has taken or emptied it, it holds something else.
 */
export const holdsTyped = (field: Field): boolean => field.dataset.dirty === field.value;

/** Whether somebody has typed into the field that has the focus, and not left it yet. */
function isTyping(): boolean {
  const field = document.activeElement;
  return isField(field) && holdsTyped(field);
}

/** A hand that has just touched a key or the pointer is not done yet; it is waited for so long at most. */
const QUIET_MS = 500;
const LONGEST_MS = 10_000;
let touchedAt = Number.NEGATIVE_INFINITY;
for (const kind of ['keydown', 'pointerdown']) {
  globalThis.document?.addEventListener(kind, () => (touchedAt = Date.now()), true);
}

/** Whether a field shows what the server refused: it would be lost. */
const isRefused = (): boolean => document.querySelector('[data-refused]') !== null;

let isWaiting = false;

/**
 * Reads this page again once nothing is on its way to the server and no field holds something that is not saved.
 * What is typed while it is being read is carried over (`frame/CarryOver`).
 */
export async function readAgain(): Promise<never> {
  if (!isWaiting) {
    isWaiting = true;
    const end = Date.now() + LONGEST_MS;
    const isBusy = () => Date.now() < end && Date.now() - touchedAt < QUIET_MS;
    do await new Promise((resolve) => setTimeout(resolve, LOOK_EVERY_MS));
    while (writesUnderWay() > 0 || isTyping() || isRefused() || isBusy());
    location.reload();
    // Where that is not done, it may be asked for again.
    isWaiting = false;
  }
  return gone();
}
