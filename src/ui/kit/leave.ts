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

/** How many fields show what the server refused: it would be lost. */
const countRefused = (): number => document.querySelectorAll('[data-refused]').length;

/** Whether the page is about to go: another is asked for, and has not come yet. */
let isGoing = false;
globalThis.addEventListener?.('beforeunload', () => {
  isGoing = true;
  // What is asked for may be a download: the page stays.
  setTimeout(() => (isGoing = false), LONGEST_MS);
});

const pause = (): Promise<void> => new Promise((resolve) => setTimeout(resolve, LOOK_EVERY_MS));

/** The page that a click on a link goes to in this window; null for any other click. */
function linkedPage(event: MouseEvent): string | null {
  const { altKey, button, ctrlKey, defaultPrevented, metaKey, shiftKey, target } = event;
  if (defaultPrevented || button !== 0 || altKey || ctrlKey || metaKey || shiftKey) return null;
  const link = target instanceof Element ? target.closest<HTMLAnchorElement>('a[href]') : null;
  if (!link || link.target !== '' || link.hasAttribute('download')) return null;
  const isHere = link.href.split('#')[0] === location.href.split('#')[0];
  return isHere || !/^https?:/.test(link.href) ? null : link.href;
}

/**
 * A link is followed once everything that was typed has reached the server: what waits for its turn would be lost
 * with the page. Where the server refuses it, the page stays and shows it.
 */
globalThis.document?.addEventListener('click', (event) => {
  const address = linkedPage(event);
  if (address === null || writesUnderWay() === 0) return;
  event.preventDefault();
  void followWhenSaved(address);
});

let wanted = '';

async function followWhenSaved(address: string): Promise<void> {
  // A second link takes the place of the first.
  const isFollowed = wanted !== '';
  wanted = address;
  if (isFollowed) return;
  isGoing = true;
  document.documentElement.style.cursor = 'progress';
  const refusals = countRefused();
  const end = Date.now() + LONGEST_MS;
  do await pause();
  while (writesUnderWay() > 0 && Date.now() < end);
  const goal = wanted;
  wanted = '';
  isGoing = false;
  document.documentElement.style.cursor = '';
  if (countRefused() <= refusals) location.assign(goal);
}

let isWaiting = false;

/**
 * Reads this page again once nothing is on its way to the server and no field holds something that is not saved.
 * What is typed while it is being read is carried over (`frame/CarryOver`). Never while another page is asked for:
 * reading this one again would call that off.
 */
export async function readAgain(): Promise<never> {
  if (!isWaiting) {
    isWaiting = true;
    const end = Date.now() + LONGEST_MS;
    const isBusy = () => Date.now() < end && Date.now() - touchedAt < QUIET_MS;
    do await pause();
    while (isGoing || writesUnderWay() > 0 || isTyping() || countRefused() > 0 || isBusy());
    location.reload();
    // Where that is not done, it may be asked for again.
    isWaiting = false;
  }
  return gone();
}
