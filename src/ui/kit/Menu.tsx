import { useEffect, useRef, useState, type KeyboardEvent } from 'react';

export interface MenuItem {
  label: string;
  /** What it does; a link has an address instead. */
  onSelect?: () => void;
  href?: string;
  isDownload?: boolean;
  hint?: string | undefined;
}

/** A button that opens a list of actions. Arrow keys walk, Enter selects, Escape closes. */
export function Menu({ label, items }: { label: string; items: readonly MenuItem[] }) {
  const [isOpen, setOpen] = useState(false);
  const root = useRef<HTMLDivElement>(null);
  const button = useRef<HTMLButtonElement>(null);
  const actions = () => [...(root.current?.querySelectorAll<HTMLElement>('[role=menuitem]') ?? [])];
  useEffect(() => {
    if (!isOpen) return;
    actions()[0]?.focus();
    const outside = ({ target }: Event) => {
      if (target instanceof Node && !root.current?.contains(target)) setOpen(false);
    };
    document.addEventListener('pointerdown', outside);
    return () => document.removeEventListener('pointerdown', outside);
  }, [isOpen]);
  const close = () => {
    setOpen(false);
    button.current?.focus();
  };
  const walk = (event: KeyboardEvent) => {
    if (event.key === 'Escape') return close();
    if (event.key === 'Tab') return setOpen(false);
    const all = actions();
    const at = all.findIndex((one) => one === document.activeElement);
    const to = { ArrowDown: at + 1, ArrowUp: at - 1, Home: 0, End: all.length - 1 }[event.key];
    if (to === undefined) return;
    event.preventDefault();
    all[(to + all.length) % all.length]?.focus();
  };
  const look =
    'block w-full px-3 py-1.5 text-left no-underline hover:bg-desk focus:bg-desk focus:outline-none';
  return (
    <div ref={root} className="relative">
      <button
        ref={button}
        type="button"
        className="action"
        aria-haspopup="menu"
        aria-expanded={isOpen}
        aria-label={label}
        onClick={() => setOpen((now) => !now)}
      >
        <span aria-hidden="true">⋯</span>
      </button>
      {isOpen && (
        <div
          role="menu"
          tabIndex={-1}
          aria-label={label}
          className="absolute right-0 z-20 mt-1 min-w-44 rounded-sm border border-line bg-sheet py-1 text-sm shadow-lg"
          onKeyDown={walk}
        >
          {items.map((item) =>
            item.href === undefined ? (
              <button
                key={item.label}
                type="button"
                role="menuitem"
                tabIndex={-1}
                className={look}
                data-hint={item.hint}
                onClick={() => {
                  close();
                  item.onSelect?.();
                }}
              >
                {item.label}
              </button>
            ) : (
              <a
                key={item.label}
                role="menuitem"
                tabIndex={-1}
                className={look}
                href={item.href}
                data-hint={item.hint}
                {...(item.isDownload === true && { download: true })}
                onClick={() => setOpen(false)}
              >
                {item.label}
              </a>
            ),
          )}
        </div>
      )}
    </div>
  );
}
