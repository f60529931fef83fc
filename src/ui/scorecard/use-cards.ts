import { useEffect, useRef, useState } from 'react';
import type { Card } from '../../core/scorecard';
import { ApiError, callApi, failureText } from '../kit/request';
import { cardFault, type OwnCard } from './cards';

/** How soon after the last change the cards are kept. */
const PAUSE_MS = 600;

export type SaveState = 'kept' | 'waiting' | 'saving' | { failed: string; isConflict: boolean };

/** The cards of a study, changed in place: kept by themselves, with a way back. */
export function useCards(studyId: string, initial: readonly OwnCard[], initialVersion: number) {
  const [cards, setCards] = useState<readonly OwnCard[]>(initial);
  const [past, setPast] = useState<readonly (readonly OwnCard[])[]>([]);
  const [state, setState] = useState<SaveState>('kept');
  const version = useRef(initialVersion);
  const pending = useRef<readonly OwnCard[] | null>(null);
  const isSaving = useRef(false);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const lastMark = useRef('');

  const save = async (): Promise<void> => {
    if (isSaving.current || !pending.current) return;
    const own = pending.current;
    pending.current = null;
    isSaving.current = true;
    setState('saving');
    const [first = null, ...rest] = own;
    const change = { scorecard: first, scorecards: rest.length > 0 ? rest : null };
    try {
      const answer = await callApi<{ row_version: number }>('PATCH', `/studies/${studyId}`, {
        ...{ version: version.current, change },
      });
      version.current = answer.row_version;
      setState('kept');
    } catch (error) {
      const isConflict = error instanceof ApiError && error.status === 409;
      setState({ failed: failureText(error, 'It could not be kept.'), isConflict });
    }
    isSaving.current = false;
    if (pending.current) await save();
  };
  useEffect(() => () => clearTimeout(timer.current), []);
  useEffect(() => {
    // What is changed in the last moment before the page goes is kept too.
    const leave = () => {
      clearTimeout(timer.current);
      void save();
    };
    window.addEventListener('pagehide', leave);
    return () => window.removeEventListener('pagehide', leave);
  });

  const put = (next: readonly OwnCard[]) => {
    setCards(next);
    clearTimeout(timer.current);
    if (next.every((card) => cardFault(card) === null)) {
      pending.current = next;
      setState('waiting');
      timer.current = setTimeout(() => void save(), PAUSE_MS);
    } else {
      pending.current = null;
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

/** A card as the worker takes it; null where it cannot be filled in. */
export const drawable = (card: OwnCard | undefined): Card | null =>
  card === undefined || cardFault(card) !== null
    ? null
    : {
        criteria: card.criteria,
        gates: card.gates ?? [],
        draws: card.draws ?? 20_000,
        concentration: card.concentration ?? 50,
      };
