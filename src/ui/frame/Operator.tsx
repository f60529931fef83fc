import { useEffect } from 'react';
import { OPERATOR_KEY, readOperator } from '../lib/operator';
import { useRemembered } from '../lib/remembered';

/**
 * Who works at the bench: initials that go with every reading and change. Where two share a tablet they are typed
 * over; who is signed in stays beside them.
 *
 * @param initials those of who is signed in, as long as nobody has said others
 */
export function Operator({ initials }: { initials: string }) {
  const [name, remember] = useRemembered(OPERATOR_KEY);
  useEffect(() => {
    if (initials !== '' && readOperator() === '') remember(initials);
  }, [initials, remember]);
  return (
    <label className="flex items-center gap-1.5 text-xs text-ink-2">
      at the bench
      <input
        className="field w-16 py-0.5 text-xs"
        value={name}
        placeholder="initials"
        maxLength={20}
        autoComplete="off"
        onChange={(event) => remember(event.target.value)}
      />
    </label>
  );
}
