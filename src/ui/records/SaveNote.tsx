import { twoDigits } from '../../core/model/study';
import type { SaveState } from './use-record';

/** Says whether what is on screen is saved. */
export function SaveNote({ state }: { state: SaveState }) {
  const said = {
    idle: '',
    saving: 'saving …',
    saved: state.kind === 'saved' ? `saved ${clock(state.at)}` : '',
    waiting: 'the server does not answer: saved on this device, and sent when it is back',
    refused: state.kind === 'refused' ? `not saved: ${state.message}` : '',
  }[state.kind];
  const isBad = state.kind === 'waiting' || state.kind === 'refused';
  return (
    <p role="status" className={`text-xs ${isBad ? 'text-warn' : 'text-ink-2'}`}>
      {said}
    </p>
  );
}

const clock = (at: Date): string => `${twoDigits(at.getHours())}:${twoDigits(at.getMinutes())}`;
