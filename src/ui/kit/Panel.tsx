import { useEffect, useRef, type ReactNode } from 'react';

interface PanelProps {
  title: string;
  onClose: () => void;
  children: ReactNode;
}

/** A panel over the page; Esc closes it. */
export function Panel({ title, onClose, children }: PanelProps) {
  const dialog = useRef<HTMLDialogElement>(null);
  useEffect(() => {
    const element = dialog.current;
    if (element && !element.open) element.showModal();
    return () => element?.close();
  }, []);
  return (
    <dialog
      ref={dialog}
      aria-label={title}
      className="backdrop:bg-black/30 m-auto max-h-[92dvh] w-full max-w-[760px] overflow-auto sheet p-4 shadow-2xl"
      onCancel={onClose}
    >
      <header className="mb-3 flex items-start justify-between gap-3">
        <h2 className="text-lg font-semibold">{title}</h2>
        <button type="button" className="action" onClick={onClose}>
          Close <kbd className="key">Esc</kbd>
        </button>
      </header>
      {children}
    </dialog>
  );
}
