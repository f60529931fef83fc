/** Never: whoever waits for it waits until the page has gone, and does nothing a second time meanwhile. */
const gone = (): Promise<never> => new Promise(() => undefined);

/** Goes to another page. */
export function goTo(address: string): Promise<never> {
  location.assign(address);
  return gone();
}

/** Reads this page again. */
export function readAgain(): Promise<never> {
  location.reload();
  return gone();
}
