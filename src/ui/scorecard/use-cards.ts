import { useEffect, useRef, useState, type SetStateAction, type Dispatch } from 'react';
import { cardOf, type Card } from '../../core/answers/scorecard';
import { ApiError, callApi, failureText, underWayUntil, UnreachableError } from '../kit/request';
import { cardFault, type OwnCard } from './cards';

/** How soon after the last change the cards are kept. */
const PAUSE_MS = 600;
/** How soon it is tried again where the server is away. */
const RETRY_MS = 2500;

export type SaveState = 'kept' | 'waiting' | 'saving' | { failed: string; isConflict: boolean };

/** The cards of a study, changed in place: kept by themselves, with a way back. */
export function useCards(studyId: string, initial: readonly OwnCard[], initialVersion: number) {
  const [cards, setCards] = useState<readonly OwnCard[]>(initial);
  const [past, setPast] = useState<readonly (readonly OwnCard[])[]>([]);
  const [state, setState] = useState<SaveState>('kept');
  const { pending, timer, lastMark, settle, settled, save } = useKeeping(
    initialVersion,
    setState,
    studyId,
  );

  const put = (next: readonly OwnCard[]) => {
    setCards(next);
    clearTimeout(timer.current);
    if (next.every((card) => cardFault(card) === null)) {
      pending.current = next;
      if (!settle.current)
        void underWayUntil(() => new Promise<void>((end) => (settle.current = end)));
      setState('waiting');
      timer.current = setTimeout(() => void save(), PAUSE_MS);
    } else {
      pending.current = null;
      settled();
    }
  };
  return {
    cards,
    state,
    canUndo: past.length > 0,
    /** Changes the cards; changes of one mark, as of one drag, are one step back. */
    change: (next: readonly OwnCard[], mark = '') => {
      if (mark === '' || mark !== lastMark.current) setPast([...past.slice(-49), cards]);
      lastMark.current = mark;
      put(next);
    },
    undo: () => {
      const before = past.at(-1);
      if (!before) return;
      setPast(past.slice(0, -1));
      lastMark.current = '';
      put(before);
    },
  };
}

/** Keeps the cards a moment after they were changed, one request at a time. */
function useKeeping(
  initialVersion: number,
  setState: Dispatch<SetStateAction<SaveState>>,
  studyId: string,
) {
  const version = useRef(initialVersion);
  const pending = useRef<readonly OwnCard[] | null>(null);
  const isSaving = useRef(false);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const lastMark = useRef('');
  /** Lets a link go that waits until the cards are kept; null where nothing waits to be kept. */
  const settle = useRef<(() => void) | null>(null);
  const settled = () => {
    if (pending.current || isSaving.current) return;
    settle.current?.();
    settle.current = null;
  };

  const save = async (isLast = false): Promise<void> => {
    if (!pending.current || (isSaving.current && !isLast)) return;
    // What is on its way makes the next version; who leaves cannot wait for it.
    const from = version.current + (isSaving.current ? 1 : 0);
    const own = pending.current;
    pending.current = null;
    isSaving.current = true;
    setState('saving');
    let isAway = false;
    const [first = null, ...rest] = own;
    const change = { scorecard: first, scorecards: rest.length > 0 ? rest : null };
    try {
      const content = { version: from, change };
      const at = `/studies/${studyId}`;
      const answer = await callApi<{ row_version: number }>('PATCH', at, content);
      version.current = answer.row_version;
      setState('kept');
    } catch (error) {
      const isConflict = error instanceof ApiError && error.status === 409;
      isAway = error instanceof UnreachableError;
      // What has been changed since is all that there is to keep.
      if (isAway) pending.current ??= own;
      setState({ failed: failureText(error, 'It could not be saved.'), isConflict });
    }
    isSaving.current = false;
    if (isAway) timer.current = setTimeout(() => void save(), RETRY_MS);
    else if (pending.current) await save();
    settled();
  };
  useEffect(
    () => () => {
      clearTimeout(timer.current);
      settle.current?.();
    },
    [],
  );
  useEffect(() => {
    // What is changed in the last moment before the page goes is kept too.
    const leave = () => {
      clearTimeout(timer.current);
      void save(true);
    };
    window.addEventListener('pagehide', leave);
    return () => window.removeEventListener('pagehide', leave);
  });
  return { pending, timer, lastMark, settle, settled, save };
}

/** A card as the worker takes it; null where it cannot be filled in. */
export const drawable = (card: OwnCard | undefined): Card | null =>
  card === undefined || cardFault(card) !== null ? null : cardOf(card);
