import { elementOf } from '../kit/event-target';
import { useEffect, useRef, useState } from 'react';

interface KeyLine {
  keys: string;
  does: string;
}

const EVERYWHERE: readonly KeyLine[] = [
  { keys: '?', does: 'the keys of this page' },
  { keys: 'Tab', does: 'next place' },
  { keys: 'Enter', does: 'open the evidence behind a figure' },
  { keys: 'Esc', does: 'close the topmost panel' },
];

/** The keys of the page, from elements that carry `data-keys`, shown on `?`. */
export function KeysHelp() {
  const dialog = useRef<HTMLDialogElement>(null);
  const [lines, setLines] = useState<readonly KeyLine[]>([]);
  const open = () => {
    const own = [...document.querySelectorAll<HTMLElement>('[data-keys]')].map((element) => ({
      keys: element.dataset.keys ?? '',
      does: element.dataset.does ?? element.textContent.trim(),
    }));
    setLines([...own, ...EVERYWHERE]);
    dialog.current?.showModal();
  };
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const target = elementOf(event);
      if (!target) return;
      const isTyping =
        target instanceof HTMLTextAreaElement ||
        target instanceof HTMLSelectElement ||
        (target instanceof HTMLInputElement && target.value !== '');
      if (event.key !== '?' || isTyping) return;
      event.preventDefault();
      open();
    };
    document.addEventListener('keydown', onKey);
    document.documentElement.dataset.keysHelp = 'ready';
    return () => document.removeEventListener('keydown', onKey);
  }, []);
  return (
    <>
      <button type="button" className="key" onClick={open} aria-label="Keys of this page">
        ?
      </button>
      <dialog
        ref={dialog}
        aria-label="Keys of this page"
        className="backdrop:bg-black/30 m-auto sheet p-4 shadow-xl"
      >
        <h2 className="mb-2 text-lg font-semibold">Keys of this page</h2>
        <p className="mb-2">
          <a href="/words">Words and methods</a> explains every figure.
        </p>
        <dl className="grid grid-cols-[auto_1fr] gap-x-4 gap-y-1">
          {lines.map((line) => (
            <div key={line.keys + line.does} className="contents">
              <dt>
                <kbd className="key">{line.keys}</kbd>
              </dt>
              <dd>{line.does}</dd>
            </div>
          ))}
        </dl>
        <p className="mt-3 text-2xs text-ink-2">
          <a href="/third-party-notices.txt">Licences of third-party packages</a>
        </p>
        <form method="dialog" className="mt-3 text-right">
          <button className="action">Close</button>
        </form>
      </dialog>
    </>
  );
}
