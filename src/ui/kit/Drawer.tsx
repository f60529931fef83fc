import { useEffect, useRef, type ReactNode } from 'react';

interface DrawerProps {
  /** What the drawer is. */
  label: string;
  /** What lies in it now. */
  title: string;
  onClose: () => void;
  children: ReactNode;
}

/** A panel over the right side of the page, which stays usable beside it; Esc closes it. */
export function Drawer({ label, title, onClose, children }: DrawerProps) {
  const panel = useRef<HTMLElement>(null);
  useEffect(() => panel.current?.focus(), []);
  return (
    <aside
      ref={panel}
      tabIndex={-1}
      aria-label={label}
      data-drawer=""
      onKeyDown={(event) => event.key === 'Escape' && onClose()}
      className="fixed inset-y-0 right-0 z-40 flex w-full max-w-[720px] flex-col border-l border-line bg-sheet shadow-2xl outline-none"
    >
      <header className="flex items-start justify-between gap-3 border-b border-line p-4">
        <div>
          <p className="text-2xs text-ink-2">{label}</p>
          <h2 className="text-lg font-semibold">{title}</h2>
        </div>
        <button type="button" className="action" onClick={onClose}>
          Close <kbd className="key">Esc</kbd>
        </button>
      </header>
      {children}
    </aside>
  );
}
