import { useEffect, useEffectEvent, useRef, useState } from 'react';
import { callApi, failureText } from '../kit/request';
import { SCANNER_MS } from '../lib/not-scanned';

const SHORTEST_CODE = 4;

/** Finds what a sticker's code stands for: typed after Ctrl K, or scanned anywhere on the page. */
export function Finder({ studyId }: { studyId: string }) {
  const field = useRef<HTMLInputElement>(null);
  const [message, setMessage] = useState<string | null>(null);
  const go = async (code: string) => {
    try {
      const path = `/studies/${studyId}/find?code=${encodeURIComponent(code)}`;
      const { href } = await callApi<{ href: string }>('GET', path);
      location.assign(href);
    } catch (error) {
      setMessage(failureText(error));
    }
  };
  const goNow = useEffectEvent(go);
  // Listens from the first moment to the last: a code may be half typed when the form is drawn anew.
  useEffect(() => {
    let typed = '';
    let last = 0;
    const onKey = (event: KeyboardEvent) => {
      if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'k') {
        event.preventDefault();
        field.current?.focus();
        field.current?.select();
        return;
      }
      const target = event.target as HTMLElement;
      if (target.closest('input, select, textarea')) return;
      const isQuick = event.timeStamp - last < SCANNER_MS;
      last = event.timeStamp;
      if (event.key === 'Enter') {
        if (isQuick && typed.length >= SHORTEST_CODE) {
          event.preventDefault();
          event.stopPropagation();
          void goNow(typed);
        }
        typed = '';
      } else if (event.key.length === 1) typed = isQuick ? typed + event.key : event.key;
    };
    document.addEventListener('keydown', onKey, true);
    document.documentElement.dataset.finder = 'ready';
    return () => document.removeEventListener('keydown', onKey, true);
  }, []);
  return (
    <form
      role="search"
      className="flex items-center gap-1"
      onSubmit={(event) => {
        event.preventDefault();
        const code = field.current?.value.trim() ?? '';
        if (code !== '') void go(code);
      }}
    >
      {message && (
        <span
          role="alert"
          className="max-w-[30ch] truncate text-xs text-warn"
          data-hint={message}
          tabIndex={0}
        >
          {message}
        </span>
      )}
      <input
        ref={field}
        className="field w-32"
        aria-label="Find by sticker code"
        placeholder="code  Ctrl K"
        data-keys="Ctrl K"
        data-does="find a specimen or print by its code"
        onChange={() => setMessage(null)}
      />
    </form>
  );
}
