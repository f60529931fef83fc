import { elementOf } from '../kit/event-target';
import { useEffect, useEffectEvent, useRef, useState } from 'react';
import type { FoundThing } from '../../contract/workshop';
import { callApi, failureText } from '../kit/request';
import { Suggest } from '../kit/Suggest';
import { SCANNER_MS } from '../lib/not-scanned';

const SHORTEST_CODE = 4;
const FIELD = 'find-anything';
/** How long typing rests before it is looked for. */
/** A message stands for so long. */
const MESSAGE_MS = 6000;
const REST_MS = 120;

const KIND_WORDS: Record<FoundThing['kind'], string> = {
  study: 'study',
  machine: 'machine',
  profile: 'profile',
  material: 'material',
  artefact: 'artefact',
  instrument: 'instrument',
  print: 'print',
  specimen: 'specimen',
  'sliced-file': 'sliced file',
};

/**
 * Finds anything by its name or code, typed after Ctrl K. In a study a sticker's code may be scanned
 * anywhere on the page.
 *
 * @param studyId the study at hand; null outside studies
 */
export function Finder({ studyId }: { studyId: string | null }) {
  const [found, setFound] = useState<readonly FoundThing[]>([]);
  const [hasLooked, setHasLooked] = useState(false);
  const [message, setMessage] = useState<string | null>(null);
  const asked = useRef(0);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);

  const search = async (text: string): Promise<FoundThing[]> => {
    const study = studyId === null ? '' : `&study=${studyId}`;
    return callApi<FoundThing[]>('GET', `/find?q=${encodeURIComponent(text)}${study}`);
  };
  // The message that nothing was found disappears: the next sticker can be scanned at once.
  useEffect(() => {
    if (message === null) return;
    const fading = setTimeout(() => setMessage(null), MESSAGE_MS);
    return () => clearTimeout(fading);
  }, [message]);
  const look = (text: string) => {
    setMessage(null);
    clearTimeout(timer.current);
    asked.current += 1;
    const turn = asked.current;
    if (text.trim() === '') {
      setFound([]);
      setHasLooked(false);
      return;
    }
    timer.current = setTimeout(() => {
      search(text.trim()).then(
        (answer) => {
          if (turn !== asked.current) return;
          setFound(answer);
          setHasLooked(true);
        },
        (error: unknown) => setMessage(failureText(error)),
      );
    }, REST_MS);
  };
  /** Where a sticker's code leads; else to the nearest that was found. */
  const go = async (code: string) => {
    try {
      if (studyId !== null) {
        const path = `/studies/${studyId}/find?code=${encodeURIComponent(code)}`;
        const place = await callApi<{ href: string }>('GET', path).catch(() => null);
        if (place) return location.assign(place.href);
      }
      const [nearest] = await search(code);
      if (nearest) location.assign(nearest.href);
      else setMessage(`Nothing carries “${code}” in its name or code.`);
    } catch (error) {
      setMessage(failureText(error));
    }
  };
  useWedge(go);
  return (
    <div role="search" className="flex items-center gap-1">
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
      <FinderField found={found} look={look} go={go} hasLooked={hasLooked} />
    </div>
  );
}

/** A scanner types a code and Enter faster than a hand does: it is looked for wherever the focus is. */
function useWedge(go: (code: string) => Promise<void>) {
  const goNow = useEffectEvent(go);
  // Listens from the first moment to the last: a code may be half typed when the form is drawn anew.
  useEffect(() => {
    let typed = '';
    let last = 0;
    const onKey = (event: KeyboardEvent) => {
      if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'k') {
        event.preventDefault();
        const field = document.querySelector<HTMLInputElement>(`#${FIELD}`);
        // On a narrow page it stands in the menu.
        if (field?.checkVisibility() === false) document.getElementById('menu')?.showPopover();
        field?.focus();
        field?.select();
        return;
      }
      const target = elementOf(event);
      if (!target) return;
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
}

interface FinderFieldProps {
  found: readonly FoundThing[];
  look: (text: string) => void;
  go: (code: string) => Promise<void>;
  hasLooked: boolean;
}

/** The field itself, with what it offers. */
function FinderField({ found, look, go, hasLooked }: FinderFieldProps) {
  return (
    <Suggest
      className="w-44 focus-within:w-64"
      label="Find anything by name or code"
      placeholder="Find anything"
      keys={{ keys: 'Ctrl K', does: 'find a study, machine, part, print, specimen or file' }}
      inputId={FIELD}
      items={found}
      keyOf={(one) => one.href}
      nameOf={(one) => one.name}
      onType={look}
      onChoose={(one, text) => {
        if (one) location.assign(one.href);
        else void go(text);
      }}
      empty={hasLooked ? 'Nothing carries that in its name or code.' : undefined}
      render={(one) => (
        <>
          <span className="flex items-baseline gap-2">
            <span className="min-w-0 flex-1 truncate">{one.name}</span>
            <span className="text-2xs text-ink-2">{KIND_WORDS[one.kind]}</span>
          </span>
          {one.about && <span className="block truncate text-2xs text-ink-2">{one.about}</span>}
        </>
      )}
    />
  );
}
