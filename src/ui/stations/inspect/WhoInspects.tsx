import { useState } from 'react';
import { OPERATOR_KEY } from '../../lib/operator';
import { useRemembered } from '../../lib/remembered';

/** Asks for the inspector's initials where grades would be entered. The photo is shown beside it. */
export function WhoInspects() {
  const [, remember] = useRemembered(OPERATOR_KEY);
  const [typed, setTyped] = useState('');
  return (
    <form
      className="grid gap-2 sheet p-4"
      onSubmit={(event) => {
        event.preventDefault();
        if (typed.trim() !== '') remember(typed.trim());
      }}
    >
      <h2 className="font-semibold">Who inspects?</h2>
      <p className="text-xs text-ink-2">
        Your initials go with every grade. Inspectors do not see each other’s grades until they have
        graded the part.
      </p>
      <p className="flex items-end gap-2">
        <label className="text-xs text-ink-2">
          Your initials
          <input
            className="field w-24"
            value={typed}
            maxLength={20}
            autoComplete="off"
            onChange={(event) => setTyped(event.target.value)}
          />
        </label>
        <button className="action action-main">Start inspecting</button>
      </p>
    </form>
  );
}
