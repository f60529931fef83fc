import { useEffect } from 'react';
import { holdsTyped, isField, type Field } from '../kit/leave';

const KEY = 'vergleich:carried';
/** Carried text is laid into its field once that is there, for so long at most. */
const LONGEST_MS = 8000;
const LOOK_EVERY_MS = 50;

/** A cell by its place, or a field by what it is called, and which of those that are called so. */
interface Carried {
  address: string;
  cell?: string;
  name: string;
  place: number;
  /** What was typed and not saved; null where only the focus was there. */
  text: string | null;
}

const nameOf = (field: Field): string =>
  field.getAttribute('aria-label') ?? field.labels?.[0]?.textContent?.trim() ?? field.name;

/** The fields of the page that are called the same, in their order. */
const namesakes = (name: string): Field[] =>
  [...document.querySelectorAll('input, textarea, select')]
    .filter(isField)
    .filter((field) => nameOf(field) === name);

/** Types into a field as a hand would: the page's own code hears of it. */
function lay(field: Field, text: string): void {
  const prototype = Object.getPrototypeOf(field) as Field;
  Object.getOwnPropertyDescriptor(prototype, 'value')?.set?.call(field, text);
  field.dispatchEvent(new Event('input', { bubbles: true }));
}

/** Lays what was carried into its field, as soon as that works. */
async function restore(carried: Carried): Promise<void> {
  const end = Date.now() + LONGEST_MS;
  while (Date.now() < end) {
    const cell =
      carried.cell && document.querySelector<HTMLElement>(`[data-cell="${carried.cell}"]`);
    const field = cell || namesakes(carried.name)[carried.place];
    const isAlive = field && !field.closest('astro-island[ssr]');
    if (field && isAlive) {
      // A hand that is in another field by now stays there.
      if (!isField(document.activeElement)) field.focus();
      if (carried.text !== null && isField(field)) lay(field, carried.text);
      return;
    }
    await new Promise((resolve) => setTimeout(resolve, LOOK_EVERY_MS));
  }
}

/**
 * Marks the field that somebody types into until it is left, and carries the focus and what is half typed over to
 * the same page where that is read again.
 */
export function CarryOver() {
  useEffect(() => {
    const found = sessionStorage.getItem(KEY);
    sessionStorage.removeItem(KEY);
    if (found !== null) {
      const carried = JSON.parse(found) as Carried;
      if (carried.address === location.pathname + location.search) void restore(carried);
    }
    const typed = ({ target, isTrusted }: Event) => {
      if (!isField(target) || !isTrusted) return;
      target.dataset.dirty = target.value;
      // Where the page's own code writes it in another way, that is what was typed.
      setTimeout(() => {
        if (target.dataset.dirty !== undefined) target.dataset.dirty = target.value;
      });
    };
    const settled = (event: Event) => {
      if (isField(event.target)) delete event.target.dataset.dirty;
    };
    const saved = (event: KeyboardEvent) => {
      if (event.key === 'Enter' || event.key === 'Escape') settled(event);
    };
    const leave = () => {
      const field = document.activeElement;
      const address = location.pathname + location.search;
      const cell = field instanceof HTMLElement ? field.dataset.cell : undefined;
      if (cell !== undefined) {
        const carried: Carried = { address, cell, name: '', place: 0, text: null };
        sessionStorage.setItem(KEY, JSON.stringify(carried));
      }
      if (!isField(field) || field.type === 'password' || field.type === 'file') return;
      const name = nameOf(field);
      const carried: Carried = {
        address,
        name,
        place: namesakes(name).indexOf(field),
        text: holdsTyped(field) ? field.value : null,
      };
      sessionStorage.setItem(KEY, JSON.stringify(carried));
    };
    document.addEventListener('input', typed, true);
    document.addEventListener('focusout', settled, true);
    document.addEventListener('keydown', saved, true);
    window.addEventListener('pagehide', leave);
    return () => {
      document.removeEventListener('input', typed, true);
      document.removeEventListener('focusout', settled, true);
      document.removeEventListener('keydown', saved, true);
      window.removeEventListener('pagehide', leave);
    };
  }, []);
  return null;
}
