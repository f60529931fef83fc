import { nearest } from './event-target';
import { useEffect, useState } from 'react';

interface Shown {
  text: string;
  left: number;
  top: number;
}

const WIDTH_PX = 280;

/**
 * Shows what elements with `data-hint` have to say: to the pointer that rests on them, the keyboard
 * that stands on them, the hand that taps them. Esc puts it away. One for each page.
 */
export function Hints() {
  const [shown, setShown] = useState<Shown | null>(null);
  useEffect(() => {
    const hide = () => setShown(null);
    const show = (event: Event) => {
      const target = nearest(event, '[data-hint]');
      const text = target?.dataset.hint;
      if (!target || !text) {
        hide();
        return;
      }
      const box = target.getBoundingClientRect();
      const left = Math.max(8, Math.min(box.left, window.innerWidth - WIDTH_PX - 8));
      const isLow = box.bottom > window.innerHeight - 80;
      setShown({ text, left, top: isLow ? box.top - 36 : box.bottom + 4 });
    };
    const byMouse = (event: PointerEvent) => event.pointerType === 'mouse' && show(event);
    const onKey = (event: KeyboardEvent) => event.key === 'Escape' && hide();
    document.addEventListener('pointerover', byMouse);
    document.addEventListener('focusin', show);
    document.addEventListener('click', show);
    document.addEventListener('keydown', onKey);
    document.addEventListener('scroll', hide, true);
    return () => {
      document.removeEventListener('pointerover', byMouse);
      document.removeEventListener('focusin', show);
      document.removeEventListener('click', show);
      document.removeEventListener('keydown', onKey);
      document.removeEventListener('scroll', hide, true);
    };
  }, []);
  if (!shown) return null;
  return (
    <div
      role="tooltip"
      ref={(element) => {
        element?.style.setProperty('left', `${shown.left}px`);
        element?.style.setProperty('top', `${shown.top}px`);
      }}
      className="pointer-events-none fixed z-50 max-w-[280px] rounded-sm border border-line bg-sheet px-2 py-1 text-xs text-ink shadow-lg"
    >
      {shown.text}
    </div>
  );
}
