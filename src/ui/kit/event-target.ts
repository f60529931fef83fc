/** The element that an event is about; null where it is about the page itself. */
export const elementOf = ({ target }: { target: EventTarget | null }): HTMLElement | null =>
  target instanceof HTMLElement ? target : null;

/** The nearest element at or around an event that fits a selector; null for none. */
export const nearest = (
  { target }: { target: EventTarget | null },
  selector: string,
): HTMLElement | null => (target instanceof Element ? target.closest<HTMLElement>(selector) : null);
