import { OPERATOR_KEY } from '../lib/operator';
import { useRemembered } from '../lib/remembered';

/** Who works at the bench: initials that go with every reading and change. */
export function Operator() {
  const [name, remember] = useRemembered(OPERATOR_KEY);
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
