import { writesUnderWay } from './request';

/** Never: whoever waits for it waits until the page has gone, and does nothing a second time meanwhile. */
const gone = (): Promise<never> => new Promise(() => undefined);

/** Goes to another page. */
export function goTo(address: string): Promise<never> {
  location.assign(address);
  return gone();
}

const LOOK_EVERY_MS = 100;

/** Whether somebody has typed into the field that has the focus, and not left it yet. */
function isTyping(): boolean {
  const field = document.activeElement;
  return field instanceof HTMLElement && field.dataset.dirty === 'true';
}

let isWaiting = false;

/**
 * Reads this page again once nothing is on its way to the server and no field holds something that is not saved.
 * What is typed while it is being read is carried over (`frame/CarryOver`).
 */
export async function readAgain(): Promise<never> {
  if (!isWaiting) {
    isWaiting = true;
    do await new Promise((resolve) => setTimeout(resolve, LOOK_EVERY_MS));
    while (writesUnderWay() > 0 || isTyping());
    location.reload();
    // Where that is not done, it may be asked for again.
    isWaiting = false;
  }
  return gone();
}
